// Builds the headless command into one file, and runs it once so that V8 keeps what it compiles of it.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { current, currentCommand, folder, root, stampOf, writeWhole } from './lib/built-command.cjs';
import { ensureNodeModules } from './lib/install.mjs';
import { lock } from './lib/lock.mjs';

// Of several that find it out of date one builds it, for all.
await lock('command');
if (currentCommand()) process.exit();
ensureNodeModules();
const { build } = await import('esbuild');

/** Modules that are loaded when they are needed, and look for files beside them. */
const BROUGHT = [
  'clipper2-wasm/dist/es/clipper2z.js',
  'harfbuzzjs',
  'pdfjs-dist/legacy/build/pdf.mjs',
  'pdfjs-dist/legacy/build/pdf.worker.mjs',
  'woff2-encoder/decompress',
];

const { outputFiles, metafile } = await build({
  absWorkingDir: root,
  entryPoints: ['src/cli/main.ts'],
  outfile: path.join(folder, 'main.cjs'),
  bundle: true,
  write: false,
  metafile: true,
  platform: 'node',
  format: 'cjs',
  target: 'node20',
  external: BROUGHT,
  define: { 'import.meta.url': 'here' },
  banner: { js: "const here = require('node:url').pathToFileURL(at).href;" },
  // ASCII, which V8 takes as it is.
  charset: 'ascii',
  minifyWhitespace: true,
  legalComments: 'none',
  logLevel: 'error',
});
// A script that V8 keeps can't import by itself: it is handed what does.
let text = outputFiles[0].text;
for (const name of BROUGHT) text = text.replaceAll(`import("${name}")`, `bring("${name}")`);
const left = /(?<![\w.$])import\("/.exec(text);
if (left) throw new Error(`The built command can’t import by itself: ${text.slice(left.index, left.index + 60)}`);
// Regular expressions alone are left as they are written: escapes mean the same in them.
text = text.replace(/[^\0-\x7f]/g, (unit) => `\\u${unit.charCodeAt(0).toString(16).padStart(4, '0')}`);

fs.mkdirSync(folder, { recursive: true });
const name = `main-${createHash('sha256').update(text).digest('hex').slice(0, 12)}.cjs`;
writeWhole(path.join(folder, name), text);
const madeFrom = Object.keys(metafile.inputs).filter((file) => !file.startsWith('node_modules/'));
for (const beside of ['package-lock.json', 'scripts/build-command.mjs']) madeFrom.push(beside);
writeWhole(
  current,
  JSON.stringify({ file: name, madeFrom: Object.fromEntries(madeFrom.map((file) => [file, stampOf(file)])) }),
);
for (const file of fs.readdirSync(folder))
  if (file.startsWith('main') && !file.startsWith(name)) fs.rmSync(path.join(folder, file), { force: true });

const out = fs.mkdtempSync(path.join(os.tmpdir(), 'needlefile-'));
const warm = spawnSync(
  process.execPath,
  [path.join(root, 'bin', 'needlefile'), 'prepare', path.join(root, 'demo', 'gate-sign.json'), '--out', out],
  { stdio: 'ignore' },
);
fs.rmSync(out, { recursive: true, force: true });
if (warm.status !== 0) throw new Error('The built command does not run.');
