/** The help, which is loaded when it is first asked for. */
import dynamic from 'next/dynamic';

export const HelpDialog = dynamic(() => import('./help-dialog').then((m) => m.HelpDialog));
