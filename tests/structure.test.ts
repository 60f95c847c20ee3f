/** The structure of the core: its layers, no circle of files, no file too long to be about one thing. */
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, test } from 'vitest';

/** Folders of the core from the bottom up: each imports only what stands before it. docs/architecture.md says what each is. */
const LAYERS = [
  'limits.ts',
  'memo.ts',
  'units',
  'schema',
  'geometry',
  'lettering',
  'formats',
  'prepare',
  'toolpath',
  'inspect',
  'kinds',
  'document',
  'commands',
  'rules',
  'job',
];
const CORE = 'src/core';
const MOST_LINES = 450;

const sources = (folder: string): string[] =>
  readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((file) => /\.tsx?$/.test(file))
    .map((file) => path.posix.join(folder, file.split(path.sep).join('/')));

const textOf = new Map(sources('src').map((file) => [file, readFileSync(file, 'utf8')]));

/** The files of the project that a file imports, its types included. */
function importsOf(file: string): string[] {
  const found = (textOf.get(file) ?? '').matchAll(/(?:from|import)\s*\(?\s*'((?:\.|@\/)[^']*)'/g);
  return [...found].flatMap(([, target = '']) => {
    const at = target.startsWith('@/')
      ? path.posix.join('src', target.slice(2))
      : path.posix.join(path.posix.dirname(file), target);
    return [at, `${at}.ts`, `${at}.tsx`, `${at}/index.ts`].filter((name) => textOf.has(name));
  });
}

const layerOf = (file: string): string => path.posix.relative(CORE, file).split('/')[0] ?? '';

test('every folder of the core has its layer', () => {
  const folders = new Set(sources(CORE).map(layerOf));
  expect([...folders].sort()).toEqual([...LAYERS].sort());
});

test('no import in the core points upwards, or out of it', () => {
  const wrong = sources(CORE).flatMap((file) =>
    importsOf(file)
      .filter(
        (target) => !target.startsWith(`${CORE}/`) || LAYERS.indexOf(layerOf(target)) > LAYERS.indexOf(layerOf(file)),
      )
      .map((target) => `${file} imports ${target}`),
  );
  expect(wrong).toEqual([]);
});

test('no file imports itself by way of others', () => {
  const circles: string[] = [];
  const done = new Set<string>();
  const visit = (file: string, way: readonly string[]): void => {
    if (way.includes(file)) circles.push([...way.slice(way.indexOf(file)), file].join(' → '));
    if (way.includes(file) || done.has(file)) return;
    for (const next of importsOf(file)) visit(next, [...way, file]);
    done.add(file);
  };
  for (const file of textOf.keys()) visit(file, []);
  expect(circles).toEqual([]);
});

test('no file is too long to be about one thing', () => {
  const long = [...textOf].flatMap(([file, text]) => {
    const lines = text.split('\n').length;
    return lines > MOST_LINES ? [`${file}: ${lines}`] : [];
  });
  expect(long).toEqual([]);
});

describe('what is remembered beside functions', () => {
  /** A map, or something to be set later, at the top of a module. */
  const REMEMBERS = /^(?:export )?(?:const \w+(?:: [^=]+)? = new (?:Weak)?(?:Map|Set)(?:<[^>]*>)?\(\)|let \w+)/gm;

  test('is named here, each with its reason', () => {
    const found = [...textOf]
      .filter(([file]) => file.startsWith(CORE) || file.startsWith('src/worker'))
      .flatMap(([file, text]) => [...text.matchAll(REMEMBERS)].map(([line]) => `${file}: ${line}`));
    expect(found).toEqual([
      // The page has one worker, whoever asks it.
      'src/worker/client.ts: let connected',
      // HarfBuzz is loaded once, and only when a typeface asks for it.
      'src/core/lettering/typeface.ts: let harfbuzz',
    ]);
  });
});
