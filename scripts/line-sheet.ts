/**
 * The contact sheet of centerlines: every face of outlines with the same characters, traced as they come. Writes
 * docs/centerlines.svg. Run with: npx tsx scripts/line-sheet.ts [file]
 */
import { writeFileSync } from 'node:fs';
import { diskFaces } from '../src/cli/typefaces';
import { checkJob } from '../src/core/document/read';
import { loadWasmEngine } from '../src/core/geometry/boolean/engine-wasm';
import { pathData } from '../src/core/geometry/path-data';
import { Evaluator } from '../src/core/job/evaluate';
import { isLineFace, SHIPPED_FACES } from '../src/core/lettering/catalogue';
import { faceOfFamily } from '../src/core/schema/lettering';

const CHARACTERS = 'aegbdktxXKRWM&48 Sage Quince';
const CAPITAL_MM = 20;
const ROW_MM = 38;

const families = SHIPPED_FACES.filter((f) => !isLineFace(f)).map((f) => f.family);
const faces = await diskFaces(families.map(faceOfFamily), null);
const height = families.length * ROW_MM + 10;
const parts = families.map((face, i) => ({
  id: `row${i}`,
  members: [
    {
      id: 'words',
      kind: 'lettering',
      placement: { x: 10, y: height - (i + 1) * ROW_MM + 12 },
      text: CHARACTERS,
      face,
      size: { by: 'capital', mm: CAPITAL_MM },
      letterSpacing: 0.04,
      align: 'left',
    },
  ],
  steps: [{ kind: 'weld' }, { kind: 'centerline', joined: false }],
  work: [{ what: 'centerline', operation: 'mark' }],
}));
const read = checkJob({ format: 1, title: 'Centerlines', sheet: { width: 600, height }, parts });
if (!read.ok) throw new Error(read.sentences.join(' '));
const result = new Evaluator(await loadWasmEngine()).evaluate(read.job, faces);
const width = Math.max(...result.parts.map((p) => p.box.maxX)) + 10;
const rows = result.parts.map((part, i) => {
  const lines = result.parts[i]?.linework.centerline;
  const nodes = (lines?.paths ?? []).flatMap((p) => [
    ...p.segments.map((s) => [s.x0, s.y0]),
    ...(p.closed ? [] : p.segments.slice(-1).map((s) => [s.x1, s.y1])),
  ]);
  return [
    `<path fill="#d9dde2" d="${pathData(
      part.outlines.map((o) => o.path),
      height,
      2,
    )}"/>`,
    `<path fill="none" stroke="#501528" stroke-width=".4" d="${pathData(lines?.paths ?? [], height, 2)}"/>`,
    `<path fill="none" stroke="#1f2a30" stroke-width=".7" stroke-linecap="round" d="${nodes
      .map(([x, y]) => `M${(x as number).toFixed(2)} ${(height - (y as number)).toFixed(2)}h0`)
      .join('')}"/>`,
    ...(lines?.dots ?? []).map(
      (d) =>
        `<circle fill="none" stroke="#501528" stroke-width=".4" cx="${d.x.toFixed(2)}" cy="${(height - d.y).toFixed(2)}" r="${(d.r / 2).toFixed(2)}"/>`,
    ),
  ].join('\n');
});
writeFileSync(
  process.argv[2] ?? 'docs/centerlines.svg',
  `<svg xmlns="http://www.w3.org/2000/svg" width="${width.toFixed(0)}mm" height="${height}mm" viewBox="0 0 ${width.toFixed(2)} ${height}">\n<rect width="100%" height="100%" fill="#fffdf8"/>\n${rows.join('\n')}\n</svg>\n`,
);
for (const finding of result.findings) if (finding.code === 'uneven-line') console.log(finding.sentence);
