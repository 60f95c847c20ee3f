/** What the pages of the help are illustrated with: small jobs that the core draws, three for each station. */
import { JOB_FORMAT, type Job, jobSchema } from '@/core/document/schema';
import type { Station } from '@/core/inspect/stations';
import { type MemberDraft, type PartDraft, part, words } from '@/core/starters/draft';

const SHEET = { width: 120, height: 70 };
const MIDDLE = { x: 60, y: 35 };

const job = (...parts: PartDraft[]): Job => jobSchema.parse({ format: JOB_FORMAT, title: 'Help', sheet: SHEET, parts });
const worked = (...work: (readonly ['outline' | 'fill' | 'hatch' | 'centerline' | 'dots' | 'studs', string])[]) => ({
  work: work.map(([what, operation]) => ({ what, operation })),
});
const cut = worked(['outline', 'cut']);
const WELD = { kind: 'weld' } as const;
const shown = (members: MemberDraft[], more: Omit<Partial<PartDraft>, 'members'>): PartDraft =>
  part('part', '', members, { placement: MIDDLE, ...more });
const text = (of: string, face: string, capital: number, more: Parameters<typeof words>[4] = {}): MemberDraft =>
  words('Words', of, face, capital, { placement: { x: 0, y: -capital / 2 }, ...more });
const rectangle = (width: number, height: number, more: { readonly corner?: number } = {}): MemberDraft => ({
  id: 'rectangle',
  kind: 'rectangle',
  placement: { x: 0, y: 0 },
  width,
  height,
  ...more,
});

/** Three jobs for each station, in the order of their captions. */
export const HELP_PICTURES: Readonly<Record<Station, readonly [Job, Job, Job]>> = {
  compose: [
    job(shown([text('Oak & Elm\n12 – 48', 'Poppins', 13, { placement: { x: 0, y: 6 }, lineSpacing: 1 })], cut)),
    job(
      shown(
        [
          text('HERB GARDEN', 'Poppins', 9, {
            placement: { x: 0, y: 6 },
            along: { line: { kind: 'arc', by: 'radius', mm: 46 }, distance: 0, start: 0 },
          }),
        ],
        cut,
      ),
    ),
    job(shown([rectangle(96, 46, { corner: 8 }), text('Shed', 'Alfa Slab One', 20, { role: 'punch' })], cut)),
  ],
  close: [
    job(shown([text('Ivy', 'Pacifico', 30)], { ...cut, steps: [{ kind: 'weld', on: false }] })),
    job(shown([text('Ivy', 'Pacifico', 30)], { ...cut, steps: [WELD] })),
    job(
      shown(
        [
          rectangle(70, 34),
          { id: 'hole', kind: 'ellipse', placement: { x: 22, y: 0 }, width: 40, height: 24, role: 'punch' },
        ],
        cut,
      ),
    ),
  ],
  hold: [
    job(
      shown([text('BOB', 'Bebas Neue', 28)], {
        ...cut,
        keep: 'outside',
        steps: [WELD, { kind: 'plate', across: 12, upright: 10, corner: 4 }, { kind: 'bridge', width: 3 }],
      }),
    ),
    job(
      shown([text('RYE', 'Fredoka', 28)], {
        ...cut,
        steps: [WELD, { kind: 'bar', height: 6, overlap: 1.5, beyond: 4 }],
      }),
    ),
    job(
      shown([text('Ely', 'Pacifico', 26)], {
        ...cut,
        steps: [WELD, { kind: 'hang', by: 'ring', width: 5, edge: 3 }],
      }),
    ),
  ],
  fill: [
    job(shown([text('Bin 4', 'Archivo Black', 24)], worked(['fill', 'engrave']))),
    job(
      shown([text('Bin 4', 'Archivo Black', 24)], {
        ...worked(['hatch', 'mark']),
        steps: [WELD, { kind: 'hatch', tool: { shape: 'line', tip: 1.2 }, angle: 35, overlap: -0.2 }],
      }),
    ),
    job(
      shown([text('Mint', 'Caveat', 34)], { ...worked(['centerline', 'mark']), steps: [WELD, { kind: 'centerline' }] }),
    ),
  ],
  assign: [
    job(
      part('plate', '', [rectangle(100, 44, { corner: 6 })], { placement: MIDDLE, ...cut }),
      part('words', '', [text('No 7', 'Poppins', 20)], { placement: MIDDLE, ...worked(['fill', 'engrave']) }),
    ),
    job(
      part('plate', '', [rectangle(100, 44, { corner: 6 })], { placement: MIDDLE, ...cut }),
      part('rim', '', [rectangle(92, 36, { corner: 4 })], { placement: MIDDLE, ...worked(['outline', 'score']) }),
      part('words', '', [text('No 7', 'EMS Readability', 18)], { placement: MIDDLE, ...worked(['outline', 'mark']) }),
    ),
    job(
      ...[-36, 0, 36].map((x, i) =>
        part(`tag-${i}`, '', [text(`${i + 1}`, 'Archivo Black', 22)], {
          placement: { x: 60 + x, y: 35 },
          ...worked(['outline', i === 1 ? 'score' : 'cut']),
        }),
      ),
    ),
  ],
  prove: [
    job(shown([text('Alder', 'Libre Baskerville', 22)], cut)),
    job(
      shown([rectangle(100, 44), text('Alder', 'Libre Baskerville', 18, { role: 'punch' })], { ...cut, steps: [WELD] }),
    ),
    job(
      shown([text('ELM', 'Archivo Black', 28)], {
        ...worked(['outline', 'cut'], ['studs', 'mark']),
        steps: [WELD, { kind: 'studs', width: 3, edge: 2 }],
      }),
    ),
  ],
};
