// Files of ours: written beside their place first, then renamed, so that one that is there is whole.
import fs from 'node:fs';

/** Writes a text file that only its owner may read. */
export function writeWhole(file, text) {
  const fresh = `${file}.new`;
  fs.writeFileSync(fresh, text, { mode: 0o600 });
  fs.renameSync(fresh, file);
}
