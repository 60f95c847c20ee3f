/** The machine that was chosen last in this browser: new jobs begin with it. */
import { remember, remembered } from './remembered';

const KEY = 'machine';

/** The id of the machine chosen last; null where none was. */
export const lastMachine = (): string | null => remembered(KEY) || null;

/** Keep the machine for the next job; '' for none. */
export const rememberMachine = (id: string): void => remember(KEY, id);
