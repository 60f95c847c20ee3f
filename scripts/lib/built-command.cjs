// Which file the headless command runs as, as long as that is built from the sources as they are. Plain CommonJS: read at each start.
const fs = require('node:fs');
const path = require('node:path');

const root = path.join(__dirname, '..', '..');
const folder = path.join(root, '.local', 'command');
const current = path.join(folder, 'current.json');

/** What tells a file from another version of itself, without reading it; null where there is none. */
function stampOf(name, from = root) {
  const stat = fs.statSync(path.join(from, name), { throwIfNoEntry: false });
  return stat ? `${stat.size} ${stat.mtimeMs}` : null;
}

/** The file that is built; null where there is none, or what it was made from has changed since. */
function currentCommand(known = current, from = root) {
  let built;
  try {
    built = JSON.parse(fs.readFileSync(known, 'utf8'));
  } catch {
    return null;
  }
  for (const [name, stamp] of Object.entries(built.madeFrom)) if (stampOf(name, from) !== stamp) return null;
  const file = path.join(path.dirname(known), built.file);
  return fs.existsSync(file) ? file : null;
}

/** Writes a file beside its place first, so that one that is there is whole. */
function writeWhole(file, content) {
  const fresh = `${file}.${process.pid}.new`;
  fs.writeFileSync(fresh, content);
  fs.renameSync(fresh, file);
}

module.exports = { root, folder, current, stampOf, currentCommand, writeWhole };
