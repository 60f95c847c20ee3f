/** Where the project lies, so that commands work from any folder. */
import path from 'node:path';
import { fileURLToPath } from 'node:url';

/** The folder of the project, wherever the command is called from. */
export const rootFolder = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..', '..');
