/**
 * A test piece: a small job made from another one, in the same stock on the same machine. Its most fragile letters at true size, a row
 * of slots to tell the width of the cut by, and a field of squares around the settings of the cut chart. What came out well becomes the
 * chart's row.
 */
import { checkJob } from '../document/read';
import { JOB_FORMAT, type Job, type Lettering, type Operation, type Part } from '../document/schema';
import type { JobResult } from '../job/evaluate';
import type { PartResult } from '../job/part-result';
import { LIMITS } from '../limits';
import type { SettingName, Settings } from '../schema/shop/settings';
import { settingsOn } from '../shop/in-force';
import { settingInLine, settingsUsed } from '../shop/words';
import { cutTo } from '../units/text';

/** The tag that test pieces carry. */
export const TEST_PIECE = 'test piece';
const TITLE = ': test piece';

/** Letters of each part that are tried, at most. */
const MOST_LETTERS = 6;
/** How far letters of a part reach together, in mm, and how wide one is, in capital heights, with room beside it. */
const LETTERS_MM = 220;
const WIDE = 1.25;
const MARGIN = 8;
const LABEL_MM = 2.6;
/** A square of the field, and from one to the next, in mm. */
const CELL = 10;
const STEP = { x: 17, y: 17 };
/** Slots: their length, and the tongue that goes into them. */
const SLOT = { tongue: 10, depth: 6, step: 24 };
/** Shares of the chart's settings that are tried, and of the width of the cut. */
const ACROSS = [0.6, 0.8, 1, 1.25, 1.5];
const UP = [0.75, 1, 1.25];
const KERFS = [0.5, 0.75, 1, 1.25, 1.5];

type Draft = Record<string, unknown>;

/** The letters of a part that are most likely to break: of its thinnest strokes, narrowest gaps and narrowest bridges. */
export function fragileLetters({
  sources,
  strength,
  bridged,
}: Pick<PartResult, 'sources' | 'strength' | 'bridged'>): string[] {
  const labels = [
    ...strength.thin.slice(0, 3).flatMap((s) => [...s.labels]),
    ...[...(bridged?.bridges ?? [])]
      .sort((a, b) => a.width - b.width)
      .slice(0, 2)
      .flatMap((b) => bridged?.islands.flatMap((i) => (i.letter === b.letter ? [i.label] : [])) ?? []),
    ...strength.tight.slice(0, 2).flatMap((s) => [...s.labels]),
    // Where nothing is fragile its first letters are as good as any.
    ...sources.keys(),
  ];
  const letters = labels.flatMap((label) => {
    const source = sources[label];
    return source?.shape === 'letter' && source.text.trim() ? [source.text] : [];
  });
  return [...new Set(letters)].slice(0, MOST_LETTERS);
}

/** Which two settings a field goes through, across and up. */
function settingsTried(job: Job, kind: Operation['kind']): readonly SettingName[] {
  const used = settingsUsed(job.machine?.kind ?? null, kind);
  return (['speed', 'power', 'current', 'depth'] as const).filter((s) => used.includes(s)).slice(0, 2);
}

const rounded = (value: number): number => Number(value.toPrecision(3));

/** One cell of a field: what is set for it, over what the job has. */
type Cell = { readonly column: number; readonly row: number; readonly typed: Partial<Settings> };

/** The field around the settings of an operation; empty where none of them is known. */
function fieldOf(job: Job, operation: Operation): Cell[] {
  const now = settingsOn(operation, job.sheet);
  const [first, second] = settingsTried(job, operation.kind).filter((s) => typeof now[s] === 'number');
  if (!first) return [];
  const at = (which: SettingName, share: number): Partial<Settings> => {
    const value = rounded((now[which] as number) * share);
    return { [which]: which === 'power' ? Math.min(100, value) : value } as Partial<Settings>;
  };
  return (second ? UP : [1]).flatMap((up, row) =>
    ACROSS.map((across, column) => ({
      column,
      row,
      typed: { ...at(first, across), ...(second ? at(second, up) : {}) },
    })),
  );
}

const label = (id: string, text: string, x: number, y: number, align = 'left'): Draft => ({
  id,
  name: text,
  placement: { x, y },
  hangsTogether: 'no',
  members: [
    {
      id: 'words',
      kind: 'lettering',
      placement: { x: 0, y: 0 },
      text,
      face: 'Hershey Sans',
      size: { by: 'capital', mm: LABEL_MM },
      align,
    },
  ],
  work: [{ what: 'outline', operation: 'labels' }],
});

/** A hue for each cell, so that the machine tells them apart. */
const shade = (i: number, count: number): string => {
  const angle = (2 * Math.PI * i) / Math.max(1, count);
  const part = (turn: number) => Math.round(110 + 90 * Math.cos(angle + turn));
  return `#${[0, 2.1, 4.2].map((turn) => part(turn).toString(16).padStart(2, '0')).join('')}`;
};

/** Parts with some of the letters of a lettering, beside each other; steps and work as the part has them. */
function letterParts(
  job: Job,
  result: JobResult,
  operations: ReadonlySet<string>,
): { part: Draft; width: number; height: number }[] {
  return job.parts.flatMap((part) => {
    const made = result.parts.find((p) => p.id === part.id);
    const words = part.members.find((m): m is Lettering => m.kind === 'lettering' && m.text.trim() !== '');
    if (!made || !words || part.reference) return [];
    const layout = made.members.find((m) => m.id === words.id)?.layout;
    if (!layout) return [];
    const mm = layout.capHeightMm;
    // Large letters are few, so that the piece stays small.
    const room = Math.max(1, Math.floor(LETTERS_MM / (WIDE * mm)));
    const text = fragileLetters(made).slice(0, room).join('');
    if (!text) return [];
    // Letters by themselves: what moved, bent or fitted them in their words stays behind.
    const member = {
      ...words,
      text,
      placement: { x: 0, y: 0 },
      letterSpacing: 0.3,
      size: words.size.by === 'capital' ? words.size : { by: 'capital', mm },
      letters: [],
      lines: [],
      fit: null,
      within: null,
      along: null,
      asSet: null,
      asked: null,
      evenLines: 'no',
      align: 'left',
    };
    const own: Draft = {
      ...part,
      name: text,
      placement: { x: 0, y: 0 },
      along: null,
      sheet: 'sheet',
      hangsTogether: 'no',
      members: [member],
      steps: part.steps.filter((s) => ['thicken', 'bridge', 'hatch', 'centerline', 'dots'].includes(s.kind)),
      work: part.work.filter((w) => operations.has(w.operation)).map((w) => ({ ...w, only: null })),
      starts: [],
      tabs: [],
      sides: [],
    };
    return [{ part: own, width: WIDE * mm * [...text].length, height: 1.4 * mm }];
  });
}

/** A test piece of a job for one of its operations; a sentence where there is nothing to try. */
export function testPiece(job: Job, result: JobResult, operationId: string): Job | { readonly sentence: string } {
  const operation = job.operations.find((o) => o.id === operationId);
  if (!operation) return { sentence: 'There is no such operation.' };
  const field = fieldOf(job, operation);
  const kerf = operation.kind === 'cut' ? settingsOn(operation, job.sheet).kerf : null;
  if (field.length === 0 && !kerf)
    return {
      sentence: `Nothing is set for ${operation.name} yet: give it a speed at station Assign, from the cut chart or typed.`,
    };
  const parts: Draft[] = [];
  const operations: Draft[] = job.operations.map((o) => ({ ...o, on: o.on && o.id !== operationId, order: {} }));
  // The operation itself works on the letters, as it is set.
  const own = operations.find((o) => o.id === operationId);
  if (own) own.on = true;
  let y = MARGIN;
  let widest = 0;

  const cells = field.map((cell, i): Draft => {
    const id = `try-${cell.column + 1}-${cell.row + 1}`;
    operations.push({
      ...operation,
      id,
      name: wordsOf(cell.typed),
      colour: shade(i, field.length),
      pens: [],
      lead: null,
      tabs: null,
      kerfSide: 'line',
      order: {},
      settings: { ...operation.settings, typed: { ...operation.settings.typed, ...cell.typed } },
    });
    return {
      id,
      name: wordsOf(cell.typed),
      placement: { x: MARGIN + 26 + CELL / 2 + cell.column * STEP.x, y: y + 4 + CELL / 2 + cell.row * STEP.y },
      hangsTogether: 'no',
      members: [{ id: 'square', kind: 'rectangle', placement: { x: 0, y: 0 }, width: CELL, height: CELL }],
      work: [{ what: operation.kind === 'engrave' ? 'fill' : 'outline', operation: id }],
    };
  });
  parts.push(...cells);
  if (field.length > 0) {
    const [first, second] = settingsTried(job, operation.kind);
    const columns = field.filter((c) => c.row === 0);
    const rows = field.filter((c) => c.column === 0);
    for (const c of columns) {
      const words = first ? String(c.typed[first]) : '';
      parts.push(label(`across-${c.column + 1}`, words, MARGIN + 26 + CELL / 2 + c.column * STEP.x, y, 'centre'));
    }
    if (first) parts.push(label('across', unitOf(first), MARGIN, y));
    if (second)
      for (const c of rows)
        parts.push(
          label(
            `up-${c.row + 1}`,
            valueWords(c.typed, second),
            MARGIN,
            y + 4 + CELL / 2 - LABEL_MM / 2 + c.row * STEP.y,
          ),
        );
    widest = Math.max(widest, MARGIN + 26 + columns.length * STEP.x);
    y += 4 + rows.length * STEP.y + 4;
  }
  if (kerf) {
    const at = y + LABEL_MM + 4 + SLOT.depth / 2;
    // A tongue of 10 mm comes out narrower by the cut, a slot wider: it fits where twice the width was taken off.
    KERFS.forEach((share, i) => {
      const width = rounded(kerf * share);
      const x = MARGIN + SLOT.step / 2 + i * SLOT.step;
      parts.push(
        {
          id: `kerf-${i + 1}`,
          name: `Kerf ${width} mm`,
          placement: { x, y: at },
          hangsTogether: 'no',
          members: [
            {
              id: 'slot',
              kind: 'rectangle',
              placement: { x: 0, y: 0 },
              width: Math.max(1, SLOT.tongue - 2 * width),
              height: SLOT.depth,
            },
          ],
          work: [{ what: 'outline', operation: 'slots' }],
        },
        label(`kerf-label-${i + 1}`, String(width), x, y, 'centre'),
      );
    });
    const tongue = { x: MARGIN + SLOT.step / 2, y: at + SLOT.depth + 8 };
    parts.push({
      id: 'tongue',
      name: 'Tongue for the slots',
      placement: tongue,
      hangsTogether: 'no',
      members: [
        { id: 'tongue', kind: 'rectangle', placement: { x: 0, y: 0 }, width: SLOT.tongue, height: 2 * SLOT.depth },
      ],
      work: [{ what: 'outline', operation: 'slots' }],
    });
    operations.push({
      ...operation,
      id: 'slots',
      name: 'Slots',
      kerfSide: 'line',
      lead: null,
      tabs: null,
      pens: [],
      order: {},
    });
    widest = Math.max(widest, MARGIN + KERFS.length * SLOT.step);
    y = tongue.y + SLOT.depth + 6;
  }
  for (const [i, { part, width, height }] of letterParts(
    job,
    result,
    new Set(job.operations.map((o) => o.id)),
  ).entries()) {
    parts.push({ ...part, id: `letters-${i + 1}`, placement: { x: MARGIN, y: y + 0.3 * height } });
    widest = Math.max(widest, MARGIN + width);
    y += height + 4;
  }
  operations.unshift({ id: 'labels', name: 'Labels', kind: 'mark' });
  const read = checkJob({
    format: JOB_FORMAT,
    title: `${cutTo(job.title, LIMITS.nameCharacters - TITLE.length)}${TITLE}`,
    tags: [TEST_PIECE],
    units: job.units,
    // It has a size of its own, whatever outline the stock of the job has.
    sheet: { ...job.sheet, width: Math.ceil(widest + MARGIN), height: Math.ceil(y + MARGIN), offCut: null },
    machine: job.machine,
    parts,
    operations,
    tools: job.tools,
    colourKey: job.colourKey,
    export: { ...job.export, page: 'sheet' },
  });
  return read.ok ? read.job : { sentence: read.sentences.join(' ') };
}

/** What the numbers along the foot of a field are. */
const unitOf = (which: SettingName): string =>
  valueWords({ [which]: 1 } as Partial<Settings>, which).replace(/^1 /, '');

const valueWords = (typed: Partial<Settings>, which: SettingName | undefined): string =>
  which && typed[which] !== undefined ? settingInLine(which, typed[which] as never, 'mm') : '';

const wordsOf = (typed: Partial<Settings>): string =>
  (Object.keys(typed) as SettingName[]).map((which) => settingInLine(which, typed[which] as never, 'mm')).join(', ');

/** What of a test piece came out well: the settings of a square, or the width of the cut that a slot fits; null for what tells nothing. */
export function cameOutWell(
  job: Job,
  part: Part,
): { readonly kind: Operation['kind']; readonly settings: Settings; readonly words: string } | null {
  if (!job.tags.includes(TEST_PIECE)) return null;
  const operation = job.operations.find((o) => part.work.some((w) => w.operation === o.id));
  if (!operation) return null;
  const now = settingsOn(operation, job.sheet);
  if (operation.id.startsWith('try-')) return { kind: operation.kind, settings: now, words: operation.name };
  const slot = part.members.find((m) => m.kind === 'rectangle' && m.id === 'slot');
  if (operation.id !== 'slots' || slot?.kind !== 'rectangle') return null;
  const kerf = rounded((SLOT.tongue - slot.width) / 2);
  return { kind: 'cut', settings: { ...now, kerf }, words: `kerf ${kerf} mm` };
}
