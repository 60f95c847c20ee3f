/** Writes a text file that only its owner may read. */
export function writeWhole(file: string, text: string): void;
