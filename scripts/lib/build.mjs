// Building the app, only when something it is made from has changed.
import { createHash } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import { root } from './paths.mjs';
import { bin, must, stop } from './run.mjs';
import { servedAt } from './served.mjs';
import { writeWhole } from './written.mjs';

const MADE_FROM = [
  'src',
  'scripts/drawn-pictures.ts',
  'public',
  'next.config.ts',
  'tsconfig.json',
  'package-lock.json',
];
/** Pictures of the starters and of the help, which come with their pages (src/server/drawn-pictures.ts). */
const pictures = path.join(root, '.next', 'needlefile-pictures.json');
const marker = path.join(root, '.next', 'needlefile-built-from');

function fingerprint() {
  const hash = createHash('sha256');
  const visit = (file) => {
    const stat = fs.statSync(file);
    if (stat.isDirectory()) for (const name of fs.readdirSync(file).sort()) visit(path.join(file, name));
    else hash.update(`${path.relative(root, file)}\0`).update(fs.readFileSync(file));
  };
  for (const name of MADE_FROM) visit(path.join(root, name));
  return hash.digest('hex');
}

export async function ensureBuilt() {
  const now = fingerprint();
  if (fs.existsSync(marker) && fs.readFileSync(marker, 'utf8') === now) return;
  const served = await servedAt();
  if (served)
    stop(`The app has changed, but the one at ${served} runs from the build this would replace. Stop it first.`);
  console.log('Building …');
  must(process.execPath, [bin('next', 'dist', 'bin', 'next'), 'build'], {
    quiet: true,
    env: { NEXT_TELEMETRY_DISABLED: '1' },
  });
  must(process.execPath, [bin('tsx', 'dist', 'cli.mjs'), 'scripts/drawn-pictures.ts', pictures], { quiet: true });
  writeWhole(marker, now);
}
