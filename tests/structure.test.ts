/** The structure of the source: its layers, no circle of files, no file too long to be about one thing, no name for two things. */
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, test } from 'vitest';

/**
 * Folders and files from the bottom up: each imports only what stands in a line before it, or itself. Those in one line do not know
 * each other. docs/architecture.md says what each is.
 */
const LAYERS: readonly (readonly string[])[] = [
  ['core/limits.ts'],
  ['core/memo.ts'],
  ['core/units'],
  ['core/schema'],
  ['core/shop'],
  ['core/geometry'],
  ['core/nesting'],
  ['core/tracing'],
  ['core/lettering'],
  ['core/formats'],
  ['core/prepare'],
  ['core/toolpath'],
  ['core/motion'],
  ['machine'],
  ['core/inspect'],
  ['core/kinds'],
  ['core/document'],
  ['core/commands'],
  ['core/roster'],
  ['core/starters'],
  ['core/rules'],
  ['core/job'],
  ['core/proof'],
  ['core/papers', 'core/trial'],
  ['api'],
  ['worker', 'server', 'cli', 'ui'],
  ['serve'],
  ['bench-machine', 'row-workers'],
  ['help'],
  ['versions', 'drafts', 'enter', 'faces', 'taken'],
  ['jobs', 'starters', 'bench', 'shop'],
  ['app'],
];
/** What a layer does not import although it stands lower: screens reach the server by its routes. */
const KEPT_FROM: Readonly<Record<string, readonly string[]>> = {
  help: ['server', 'cli', 'worker', 'serve'],
  versions: ['server', 'cli', 'worker'],
  drafts: ['server', 'cli', 'worker'],
  faces: ['server', 'cli'],
  taken: ['server', 'cli'],
  enter: ['server', 'cli', 'worker', 'serve'],
  jobs: ['server', 'cli', 'serve'],
  starters: ['server', 'cli', 'serve'],
  shop: ['server', 'cli', 'serve', 'worker'],
  bench: ['server', 'cli', 'serve'],
  app: ['cli', 'bench-machine', 'row-workers'],
};

/** Packages by the layers that may import them; the core has those that compute. Any other package is for none. */
const PACKAGES: Readonly<Record<string, string>> = {
  core: 'bidi-js clipper2-ts clipper2-wasm color-string css-select delaunator fast-png fflate flatbush harfbuzzjs immer papaparse pdfjs-dist saxes svgpath woff2-encoder zod',
  api: 'zod',
  worker: 'comlink @noble/hashes',
  machine: 'flatbush zod',
  server: 'drizzle-orm node: pg pg-boss zod',
  'row-workers': 'node:',
  serve: 'next node:',
  'bench-machine': 'node: zod',
  cli: 'node:',
  ui: 'bootstrap chart.js lucide-react next react react-bootstrap react-chartjs-2 react-dom @dnd-kit @tanstack/react-query @tanstack/react-virtual',
  help: 'lucide-react react react-bootstrap react-hotkeys-hook @tanstack/react-query',
  versions: 'lucide-react react react-bootstrap @tanstack/react-query',
  faces: 'lucide-react next react react-bootstrap zod zustand @tanstack/react-query @tanstack/react-virtual',
  drafts: 'idb next react react-bootstrap @tanstack/react-query',
  taken: 'next react',
  enter: 'react react-bootstrap @tanstack/react-query',
  jobs: 'lucide-react next react react-bootstrap @tanstack/react-query',
  shop: 'lucide-react next react react-bootstrap react-hook-form @hookform/resolvers @tanstack/react-query @tanstack/react-table',
  starters: 'lucide-react next react react-bootstrap @tanstack/react-query',
  bench:
    'chart.js comlink d3-selection d3-zoom lucide-react next react react-bootstrap react-chartjs-2 react-dom react-hotkeys-hook zustand @dnd-kit @tanstack/react-query @tanstack/react-table @tanstack/react-virtual',
  app: 'bootstrap next react zod @fontsource @tanstack/react-query',
};
const CORE = 'src/core';
const MOST_LINES = 450;

const sources = (folder: string): string[] =>
  readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((file) => /\.tsx?$/.test(file))
    .map((file) => path.posix.join(folder, file.split(path.sep).join('/')));

const textOf = new Map(sources('src').map((file) => [file, readFileSync(file, 'utf8')]));

const IMPORTS = /(?:from|import|new URL)\s*\(?\s*'([^'\s]+)'/g;
const isOwn = (target: string): boolean => target.startsWith('.') || target.startsWith('@/');

/** What a file imports, its types included: files of the project by their names in it, packages as they are called. */
function importsOf(file: string, text = textOf.get(file) ?? ''): string[] {
  return [...text.matchAll(IMPORTS)].flatMap(([, target = '']) => {
    if (!isOwn(target)) return [target];
    const at = target.startsWith('@/')
      ? path.posix.join('src', target.slice(2))
      : path.posix.join(path.posix.dirname(file), target);
    return [at, `${at}.ts`, `${at}.tsx`, `${at}/index.ts`].filter((name) => textOf.has(name));
  });
}
const filesOf = (file: string): string[] => importsOf(file).filter((target) => textOf.has(target));

const isIn = (file: string, layer: string): boolean => file === `src/${layer}` || file.startsWith(`src/${layer}/`);
const heightOf = (file: string): number => LAYERS.findIndex((line) => line.some((layer) => isIn(file, layer)));
const layerOf = (file: string): string | undefined => LAYERS[heightOf(file)]?.find((layer) => isIn(file, layer));

/** What is wrong with a file importing something; null for nothing. */
function faultOf(file: string, target: string): string | null {
  const [layer, folder = ''] = [layerOf(file), file.split('/')[1]];
  if (!textOf.has(target)) {
    if (target.endsWith('.css') || target.endsWith('.scss')) return null;
    const allowed = (PACKAGES[folder] ?? '').split(' ');
    const isAllowed = allowed.some(
      (name) => target === name || target.startsWith(name.endsWith(':') ? name : `${name}/`),
    );
    return isAllowed ? null : `${file} imports the package ${target}`;
  }
  if (layerOf(target) === layer) return null;
  const isBelow = heightOf(target) < heightOf(file);
  return isBelow && !KEPT_FROM[folder]?.includes(layerOf(target) ?? '') ? null : `${file} imports ${target}`;
}

test('every file has its layer', () => {
  expect([...textOf.keys()].filter((file) => layerOf(file) === undefined)).toEqual([]);
  expect(LAYERS.flat().filter((layer) => ![...textOf.keys()].some((file) => isIn(file, layer)))).toEqual([]);
});

describe('no import points upwards', () => {
  test('in any file', () => {
    const faults = [...textOf.keys()].flatMap((file) => importsOf(file).map((target) => faultOf(file, target)));
    expect(faults.filter((fault) => fault !== null)).toEqual([]);
  });

  test('planted ones are found', () => {
    const planted = (file: string, text: string) => importsOf(file, text).map((target) => faultOf(file, target));
    const wrong = (file: string, text: string) => expect(planted(file, text), text).toEqual([expect.any(String)]);
    wrong('src/core/geometry/point.ts', "import type { Outline } from '../prepare/outline';");
    wrong('src/core/geometry/point.ts', "import { Host } from '@/worker/host';");
    wrong('src/core/geometry/point.ts', "import { useState } from 'react';");
    wrong('src/core/geometry/point.ts', "import { readFileSync } from 'node:fs';");
    wrong('src/core/memo.ts', "const later = await import('./units/quantity');");
    wrong('src/worker/host.ts', "export { listJobs } from '../server/jobs';");
    wrong('src/bench/store.ts', "import { listJobs } from '@/server/jobs';");
    wrong('src/jobs/api.ts', "import { useBench } from '@/bench/store';");
    wrong('src/ui/fields.tsx', "import { useBench } from '@/bench/store';");
    wrong('src/bench/store.ts', "import lodash from 'lodash';");
    expect(planted('src/bench/store.ts', "import { Host } from '@/worker/host';")).toEqual([null]);
  });
});

/** All that a file imports that is more than a type, and what that imports. */
function reachedFrom(file: string, met = new Set<string>()): Set<string> {
  const text = (textOf.get(file) ?? '').replace(/^import type [^;]*;/gm, '');
  for (const target of importsOf(file, text))
    if (textOf.has(target) && !met.has(target)) {
      met.add(target);
      reachedFrom(target, met);
    }
  return met;
}

test('the machine that files are checked by shares nothing with what writes or reads them back', () => {
  const files = [...textOf.keys()].filter((file) => file.startsWith('src/machine/'));
  expect(files.length).toBeGreaterThan(0);
  const reached = new Set(files.flatMap((file) => [...reachedFrom(file)]));
  expect(reached.size).toBeGreaterThan(20);
  expect(
    [...reached].filter((file) => /formats\/(.*-write|written|dxf-file|dxf-structure|read-back\/)/.test(file)),
  ).toEqual([]);
});

describe('what reads a file back', () => {
  const FOLDER = 'src/core/formats/read-back/';
  /** What a file imports from outside the folder that is more than a type. */
  const shared = (file: string, text = textOf.get(file) ?? ''): string[] =>
    importsOf(file, text.replace(/^import type [^;]*;/gm, '')).filter((target) => !target.startsWith(FOLDER));

  test('shares no code with what writes it, so that a slip on one side is found by the other', () => {
    const files = [...textOf.keys()].filter((file) => file.startsWith(FOLDER));
    expect(files.length).toBeGreaterThan(4);
    // Unpacking is a library’s; what names come to in files is known to those who read them alone.
    const own = ['fflate', 'src/core/formats/layer-names.ts'];
    expect(files.flatMap((file) => shared(file).filter((target) => !own.includes(target)))).toEqual([]);
    const writers = [...textOf.keys()].filter((file) => /formats\/.*-write\.ts$/.test(file));
    expect(writers.length).toBeGreaterThan(3);
    expect(writers.filter((file) => importsOf(file).some((target) => target === own[1]))).toEqual([]);
  });

  test('a planted import is found', () => {
    expect(shared(`${FOLDER}svg.ts`, "import { decimal } from '../../units/decimal';")).toHaveLength(1);
    expect(shared(`${FOLDER}svg.ts`, "import type { Path } from '../../geometry/path';")).toEqual([]);
  });
});

/** A line that exports something declared in it, and its name. */
const EXPORTED = /^export (?:declare |async |abstract )*(?:function\*?|class|type|interface|const|let|enum) (\w+)/;

test('no name is exported twice in the core', () => {
  const names = new Map<string, Set<string>>();
  for (const [file, text] of textOf)
    if (file.startsWith(CORE))
      for (const line of text.split('\n')) {
        const name = EXPORTED.exec(line)?.[1];
        if (name) names.set(name, (names.get(name) ?? new Set()).add(file));
      }
  const twice = [...names].flatMap(([name, files]) => (files.size > 1 ? [`${name}: ${[...files].join(', ')}`] : []));
  expect(twice).toEqual([]);
});

test('what is exported says first what it is', () => {
  // Pages and route handlers are named by the framework.
  const silent = [...textOf]
    .filter(([file]) => !file.startsWith('src/app/'))
    .flatMap(([file, text]) => {
      const lines = text.split('\n');
      return lines.flatMap((line, i) => {
        const name = EXPORTED.exec(line)?.[1];
        const isSaid = lines[i - 1]?.trimEnd().endsWith('*/') || EXPORTED.exec(lines[i - 1] ?? '')?.[1] === name;
        return name === undefined || isSaid ? [] : [`${file}: ${name}`];
      });
    });
  expect(silent).toEqual([]);
});

test('no file imports itself by way of others', () => {
  const circles: string[] = [];
  const done = new Set<string>();
  const visit = (file: string, way: readonly string[]): void => {
    if (way.includes(file)) circles.push([...way.slice(way.indexOf(file)), file].join(' → '));
    if (way.includes(file) || done.has(file)) return;
    for (const next of filesOf(file)) visit(next, [...way, file]);
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
      // And one for the rows of a list of names, so that the sheet does not wait for them.
      'src/worker/client.ts: let connectedForRows',
      // HarfBuzz is loaded once, and only when a typeface asks for it.
      'src/core/lettering/harfbuzz.ts: let loading',
    ]);
  });
});
