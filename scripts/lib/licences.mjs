// What the packages that ship allow, and whether all of that is permissive.
import fs from 'node:fs';
import path from 'node:path';

/** Licences that ask for no more than to be named with what they cover, by their SPDX names. */
const PERMISSIVE = new Set([
  '0BSD',
  'Apache-2.0',
  'BlueOak-1.0.0',
  'BSD-2-Clause',
  'BSD-3-Clause',
  'BSL-1.0',
  'CC0-1.0',
  'ISC',
  'MIT',
  'MIT-0',
  'OFL-1.1',
  'Python-2.0',
  'Unlicense',
  'Zlib',
]);

/** Data that asks to be named, by package: it is no code. */
const DATA = { 'caniuse-lite': 'CC-BY-4.0' };

/** Whether an SPDX expression leaves a way on by permissive licences alone. */
export function isPermissive(expression) {
  const words = String(expression ?? '').match(/\(|\)|[^\s()]+/g) ?? [];
  let at = 0;
  const one = () => {
    const word = words[at++];
    if (word !== '(') return PERMISSIVE.has(word);
    const inside = either();
    return words[at++] === ')' && inside;
  };
  const both = () => {
    let all = one();
    while (words[at] === 'AND') {
      at++;
      all = one() && all;
    }
    return all;
  };
  const either = () => {
    let any = both();
    while (words[at] === 'OR') {
      at++;
      any = both() || any;
    }
    return any;
  };
  const found = words.length > 0 && either();
  return found && at === words.length;
}

/**
 * The packages that ship, by a lock file: names, versions, licences, and whether each may. Those for other platforms are among them.
 * @param root the folder with package-lock.json, and node_modules where a licence is not in it
 */
export function shippedPackages(root) {
  const lock = JSON.parse(fs.readFileSync(path.join(root, 'package-lock.json'), 'utf8'));
  return Object.entries(lock.packages)
    .filter(([place, entry]) => place !== '' && !entry.dev && !entry.devOptional && !entry.link)
    .map(([place, entry]) => {
      const name = entry.name ?? place.slice(place.lastIndexOf('node_modules/') + 'node_modules/'.length);
      const own = path.join(root, place, 'package.json');
      const said = entry.license ?? (fs.existsSync(own) ? JSON.parse(fs.readFileSync(own, 'utf8')).license : undefined);
      const licence = typeof said === 'object' ? said?.type : said;
      return {
        name,
        version: entry.version,
        licence: licence ?? 'none',
        may: isPermissive(licence) || (Object.hasOwn(DATA, name) && DATA[name] === licence),
      };
    })
    .sort((a, b) => a.name.localeCompare(b.name));
}
