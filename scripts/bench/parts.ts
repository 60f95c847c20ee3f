/** What moving, and turning and mirroring, a part takes against computing it at first: nothing of it is prepared anew. */
import { readdirSync, readFileSync } from 'node:fs';
import { diskFaces } from '../../src/cli/typefaces';
import { type Chosen, mirrorChosen, moveChosen, turnChosen } from '../../src/core/commands/chosen';
import { checkJob } from '../../src/core/document/read';
import type { Job } from '../../src/core/document/schema';
import { Evaluator } from '../../src/core/job/evaluate';
import { faceOfFamily } from '../../src/core/schema/lettering';
import { wasmEngine } from '../../tests/support/faces';
import { figure } from '../../tests/support/figures';
import { SIGN as FILLED } from '../../tests/support/sign';
import { middle } from './median';

const ROUNDS = 30;
/** Rounds before those that count: a part is dragged for seconds, at sixty moves each, and its code is compiled by then. */
const ROUNDS_BEFORE = 300;
/** Parts that take longer at first are measured as a share of that, others in ms. */
const LONG_MS = 20;

const WORDS = 'Alder Lane Community\nGarden and workshop\nopen every day from 8 to 6, come in';
const sign = (face: string) => ({
  format: 2,
  sheet: { width: 900, height: 400 },
  parts: [
    {
      id: 'words',
      placement: { x: 20, y: 300 },
      members: [
        { id: 'w', kind: 'lettering', placement: { x: 0, y: 0 }, text: WORDS, face, size: { by: 'capital', mm: 30 } },
      ],
      steps: [{ kind: 'weld' }, { kind: 'thicken', by: 0.3 }, { kind: 'tie', width: 2, overlap: 1 }],
      work: [{ what: 'outline', operation: 'cut' }],
    },
    {
      id: 'backing',
      along: 'words',
      placement: { x: 0, y: 0 },
      members: [{ id: 'copy', kind: 'copy', of: 'words', follows: true, placement: { x: 0, y: 0 } }],
      steps: [{ kind: 'weld' }, { kind: 'border', distance: 6 }],
      work: [{ what: 'outline', operation: 'cut' }],
    },
  ],
});

const jobOf = (document: unknown): Job => {
  const read = checkJob(document);
  if (!read.ok) throw new Error(read.sentences.join(' '));
  return read.job;
};
const jobs: readonly (readonly [string, Job])[] = [
  ...['Archivo Black', 'Pacifico'].map((face) => [`sign in ${face}`, jobOf(sign(face))] as const),
  ['filled sign', jobOf(FILLED)] as const,
  ...readdirSync('demo')
    .filter((file) => file.endsWith('.json'))
    .map((file) => [file.replace('.json', ''), jobOf(JSON.parse(readFileSync(`demo/${file}`, 'utf8')))] as const),
];

const timed = (run: () => unknown): number => {
  const began = performance.now();
  run();
  return performance.now() - began;
};

type Row = { readonly name: string; readonly first: number; readonly moved: number; readonly turned: number };
const rows: Row[] = [];
for (const [name, whole] of jobs) {
  // One part by itself, with what it copies or goes along with.
  for (const part of whole.parts.slice(0, 2)) {
    if (part.hidden || part.locked || part.keep === 'outside') continue;
    const ids = new Set([part.id, part.along, ...part.members.map((m) => (m.kind === 'copy' ? m.of : null))]);
    const job: Job = { ...whole, parts: whole.parts.filter((p) => ids.has(p.id)), leftAsIs: [] };
    const families = job.parts.flatMap((p) => p.members.flatMap((m) => (m.kind === 'lettering' ? [m.face] : [])));
    const faces = await diskFaces([...new Set(families)].map(faceOfFamily), null);
    const chosen: Chosen = { partIds: [part.id], memberId: null };
    const evaluator = new Evaluator(wasmEngine);
    evaluator.evaluate(job, faces);
    const first = middle(Array.from({ length: 3 }, () => timed(() => new Evaluator(wasmEngine).evaluate(job, faces))));
    let now = job;
    const motion = (steps: readonly ((from: Job) => Job)[]): number =>
      middle(
        Array.from({ length: ROUNDS_BEFORE + ROUNDS }, (_, i) => {
          now = (steps[i % steps.length] as (from: Job) => Job)(now);
          return timed(() => evaluator.evaluate(now, faces));
        }).slice(ROUNDS_BEFORE),
      );
    const moved = motion([
      (from) => moveChosen(from, chosen, 1.5, -0.5),
      (from) => moveChosen(from, chosen, -1.4, 0.6),
    ]);
    const turned = motion([
      (from) => turnChosen(from, chosen, 7, { x: 100, y: 80 }),
      (from) => mirrorChosen(from, chosen, 120),
    ]);
    rows.push({ name: `${name}, ${part.id}`, first, moved, turned });
  }
}
if (process.env.NEEDLEFILE_ROWS)
  for (const r of rows) console.log(r.name, r.first.toFixed(2), r.moved.toFixed(3), r.turned.toFixed(3));

/** The figures of one motion: against the first evaluation where that is long, in ms where it is short. */
function tell(
  verb: string,
  time: (row: Row) => number,
  aims: { readonly long: number; readonly short: number } | null,
) {
  const long = rows.filter((r) => r.first > LONG_MS).sort((a, b) => time(b) / b.first - time(a) / a.first);
  const short = rows.filter((r) => r.first <= LONG_MS).sort((a, b) => time(b) - time(a));
  const [worst, slowest] = [long[0], short[0]];
  if (worst)
    figure({
      name: `A part ${verb}, against its first evaluation, the worst of ${long.length} that take over ${LONG_MS} ms`,
      value: time(worst) / worst.first,
      digits: 4,
      ...(aims && { aim: { most: aims.long } }),
      note: `${time(worst).toFixed(2)} ms against ${worst.first.toFixed(0)} ms, ${worst.name}`,
    });
  if (slowest)
    figure({
      name: `A part ${verb}, the slowest of the ${short.length} that take less`,
      value: time(slowest),
      digits: 2,
      unit: 'ms',
      ...(aims && { aim: { most: aims.short } }),
      note: slowest.name,
    });
}
tell('moved', (r) => r.moved, { long: 0.02, short: 0.5 });
tell('turned or mirrored', (r) => r.turned, null);
