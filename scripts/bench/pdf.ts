/** Speed of reading a page of a PDF against what pdf.js takes for its list of operators alone. */
import { openDrawing } from '../../src/core/formats/read';
import { countSegments } from '../../src/core/geometry/path';
import { figure } from '../../tests/support/figures';
import { pdfOf } from '../../tests/support/pdf';
import { chance } from '../../tests/support/random';
import { middle } from './median';

const SEGMENTS = 100_000;
const ROUNDS = 7;

/** Outlines of a few lines and curves each, as drawing programs write them. */
function page(): Uint8Array {
  const next = chance(3);
  const n = () => (next() * 1000).toFixed(3);
  const out: string[] = [];
  for (let segments = 0; segments < SEGMENTS; ) {
    const count = 3 + Math.floor(next() * 12);
    out.push(`${n()} ${n()} m`);
    for (let k = 0; k < count; k++)
      out.push(k % 3 === 2 ? `${n()} ${n()} ${n()} ${n()} ${n()} ${n()} c` : `${n()} ${n()} l`);
    out.push(next() < 0.5 ? 'S' : 'f');
    segments += count;
  }
  return pdfOf([{ content: out.join('\n'), more: '/MediaBox[0 0 1000 1000]' }]);
}

const bytes = page();
// @ts-expect-error: it comes without types.
await import('pdfjs-dist/legacy/build/pdf.worker.mjs');
const pdf = await import('pdfjs-dist/legacy/build/pdf.mjs');

async function bare(): Promise<void> {
  const loading = pdf.getDocument({
    data: bytes.slice(),
    disableFontFace: true,
    fontExtraProperties: true,
    verbosity: 0,
  });
  const document = await loading.promise;
  const list = await (await document.getPage(1)).getOperatorList({ intent: 'print' });
  if (list.fnArray.length === 0) throw new Error('nothing is drawn');
  await loading.destroy();
}

let found = 0;
async function read(): Promise<void> {
  const opened = await openDrawing(bytes);
  if (!opened.ok) throw new Error(opened.sentence);
  const done = await opened.read(0, () => {});
  if (!done.ok) throw new Error(done.sentence);
  found = done.found.shapes.reduce((sum, s) => sum + countSegments(s.paths), 0);
  await opened.close();
}

const [barely, whole]: [number[], number[]] = [[], []];
for (let i = 0; i < ROUNDS + 2; i++) {
  for (const [run, times] of [
    [bare, barely],
    [read, whole],
  ] as const) {
    const began = performance.now();
    await run();
    if (i >= 2) times.push(performance.now() - began);
  }
}
if (found < SEGMENTS) throw new Error(`only ${found} segments are read`);
figure({
  name: `Reading a PDF of ${SEGMENTS.toLocaleString('en')} segments, against its list of operators alone`,
  value: middle(whole) / middle(barely),
  digits: 2,
  aim: { most: 3 },
  note: `${Math.round(middle(whole))} ms against ${Math.round(middle(barely))} ms`,
});
