/** The help, which is loaded when it is first asked for. */
import dynamic from 'next/dynamic';

/** The help of a screen, and from there of all others; see `help-dialog.tsx`. */
export const HelpDialog = dynamic(() => import('./help-dialog').then((m) => m.HelpDialog));
