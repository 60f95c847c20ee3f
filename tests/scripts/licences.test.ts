/** What ships is permissive, and what is not is found out. */
import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { afterEach, expect, test } from 'vitest';
import { isPermissive, shippedPackages } from '../../scripts/lib/licences.mjs';
import { local, root } from '../../scripts/lib/paths.mjs';

const folder = path.join(local, 'licences');
afterEach(() => rmSync(folder, { recursive: true, force: true }));

test('all that ships is permissive, and none of it draws pictures with libraries that are not', () => {
  const shipped = shippedPackages(root);
  expect(shipped.length).toBeGreaterThan(100);
  expect(shipped.filter(({ may }) => !may)).toEqual([]);
  expect(shipped.filter(({ name }) => name.startsWith('@img/'))).toEqual([]);
});

test.each([
  'MIT',
  '(MIT OR GPL-3.0-only)',
  'GPL-2.0-only OR ISC',
  '(MIT AND BSD-3-Clause)',
  '(MIT AND (Zlib OR LGPL-3.0-only))',
])('%s leaves a permissive way', (expression) => expect(isPermissive(expression)).toBe(true));

test.each([
  'GPL-3.0-only',
  'LGPL-3.0-or-later',
  'Apache-2.0 AND LGPL-3.0-or-later',
  '(MIT OR ISC) AND MPL-2.0',
  'CC-BY-4.0',
  'UNLICENSED',
  'SEE LICENSE IN LICENSE',
  'none',
  '',
  undefined,
  'MIT)',
  '(MIT',
  'mit',
])('%s leaves none', (expression) => expect(isPermissive(expression)).toBe(false));

test('a package that is not permissive is found, with those for other platforms; what only builds is not asked', () => {
  const packages = {
    '': { license: 'MIT' },
    'node_modules/good': { version: '1.0.0', license: 'MIT' },
    'node_modules/good/node_modules/bad': { version: '2.0.0', license: 'GPL-3.0-only' },
    'node_modules/@other/platform': { version: '3.0.0', license: 'LGPL-3.0-or-later', optional: true },
    'node_modules/builds': { version: '4.0.0', license: 'GPL-3.0-only', dev: true },
    'node_modules/caniuse-lite': { version: '5.0.0', license: 'CC-BY-4.0' },
    'node_modules/data': { version: '6.0.0', license: 'CC-BY-4.0' },
    'node_modules/silent': { version: '7.0.0' },
    'node_modules/told': { version: '8.0.0' },
  };
  mkdirSync(path.join(folder, 'node_modules', 'told'), { recursive: true });
  writeFileSync(path.join(folder, 'package-lock.json'), JSON.stringify({ packages }));
  writeFileSync(
    path.join(folder, 'node_modules', 'told', 'package.json'),
    JSON.stringify({ license: { type: 'ISC' } }),
  );
  expect(shippedPackages(folder).map(({ name, licence, may }) => [name, licence, may])).toEqual([
    ['@other/platform', 'LGPL-3.0-or-later', false],
    ['bad', 'GPL-3.0-only', false],
    ['caniuse-lite', 'CC-BY-4.0', true],
    ['data', 'CC-BY-4.0', false],
    ['good', 'MIT', true],
    ['silent', 'none', false],
    ['told', 'ISC', true],
  ]);
});
