/** The proof sheet: what will be made, on paper to be printed and signed, before the stock is cut. */
import type { Job, Operation } from '../document/schema';
import { gramsOf } from '../document/weight';
import type { Drawing } from '../formats/drawing';
import { boxHeight, boxWidth, compose, scaling, translation } from '../geometry/point';
import type { Finding } from '../inspect/finding';
import type { JobRun } from '../job/run';
import { layerSettings } from '../shop/layer-settings';
import { formatSeconds } from '../units/duration';
import { missedIn } from '../units/letters-alike';
import { formatLength } from '../units/quantity';
import { type JobShapes, movedShapes, OPERATION_INK, ratioFor, ratioWords } from './job-picture';
import { INK, MUTED, Page, type PaperSize } from './paper';
import type { PaperFaces } from './words';

/** What the sheet speaks of. */
export type ProofSheetOf = {
  readonly job: Job;
  readonly shapes: JobShapes;
  readonly run: JobRun;
  readonly findings: readonly Finding[];
  /** Files as they are given out, with what tells them apart. */
  readonly files: readonly { readonly name: string; readonly sha256: string }[];
  /** What differed when they were run; null where they were not proved. */
  readonly differences: readonly string[] | null;
  /** The machine they were run as. */
  readonly machine: string | null;
  /** The day, "2026-05-04". */
  readonly date: string;
};

const MARGIN = 15;
const CAUTION = '#9A6A00';
const GOOD = '#2F7D4F';
const FAULT = '#B3261E';
/** Colours of what is kept, and of the paper. */
const STOCK = '#E9E2D3';
/** Room that the picture may take, in mm. */
const PICTURE_HEIGHT = 90;

/** The pages of the proof sheet. */
export function proofSheet(of: ProofSheetOf, faces: PaperFaces, size: PaperSize): Drawing[] {
  return new ProofSheet(of, faces, size).pages();
}

class ProofSheet {
  private page: Page;
  private y: number;
  private readonly done: Page[];
  private readonly across: number;

  constructor(
    private readonly of: ProofSheetOf,
    private readonly faces: PaperFaces,
    private readonly size: PaperSize,
  ) {
    this.page = new Page(size, faces);
    this.done = [this.page];
    this.y = size.height - MARGIN;
    this.across = size.width - 2 * MARGIN;
  }

  pages(): Drawing[] {
    this.head();
    this.picture();
    this.facts();
    this.operations();
    this.words();
    this.leftAsIs();
    this.proof();
    this.signature();
    const title = `${this.of.job.title}: proof sheet`;
    return this.done.map((page, i) => {
      page.words(`${i + 1} of ${this.done.length}`, this.size.width - MARGIN, 8, {
        size: 2.8,
        colour: MUTED,
        align: 'right',
      });
      return page.drawing(title);
    });
  }

  /** Room for so many mm, on another page where there is none. */
  private room(mm: number): void {
    if (this.y - mm > MARGIN + 4) return;
    this.page = new Page(this.size, this.faces);
    this.done.push(this.page);
    this.y = this.size.height - MARGIN - 4;
  }

  private heading(words: string): void {
    this.room(14);
    this.y -= 4;
    this.page.words(words, MARGIN, this.y, { size: 4, bold: true });
    this.page.rule(MARGIN, this.y - 1.8, this.size.width - MARGIN, this.y - 1.8);
    this.y -= 7;
  }

  private line(words: string, colour = INK): void {
    this.room(6);
    this.y = this.page.block(words, MARGIN, this.y, this.across, { colour });
  }

  private head(): void {
    const { job, date } = this.of;
    this.y -= 4;
    this.page.words('Proof sheet', MARGIN, this.y, { colour: MUTED });
    this.page.words(date, this.size.width - MARGIN, this.y, { colour: MUTED, align: 'right' });
    this.y -= 9;
    this.y = this.page.block(job.title || 'Untitled', MARGIN, this.y, this.across, { size: 7, bold: true });
    if (job.export.mirrored)
      this.line('Files are mirrored, to be worked from behind. The picture is as seen from the front.', CAUTION);
  }

  private picture(): void {
    const { shapes } = this.of;
    const ratio = ratioFor(shapes.box, this.across, PICTURE_HEIGHT);
    const [width, height] = [boxWidth(shapes.box) / ratio, boxHeight(shapes.box) / ratio];
    const left = MARGIN + (this.across - width) / 2;
    const low = this.y - height;
    const m = compose(
      compose(translation(-shapes.box.minX, -shapes.box.minY), scaling(1 / ratio)),
      translation(left, low),
    );
    const { kept, areas, lines } = movedShapes(shapes, m);
    for (const paths of kept) this.page.fill(paths, STOCK);
    for (const { kind, paths } of areas) this.page.fill(paths, OPERATION_INK[kind]);
    for (const { kind, path } of lines) this.page.stroke(path, OPERATION_INK[kind]);
    this.y = low - 6;
    // A length to measure by, so that one sees whether it was printed at true size.
    const bar = 50;
    this.page.rule(MARGIN, this.y, MARGIN + bar, this.y, INK);
    for (const x of [MARGIN, MARGIN + bar]) this.page.rule(x, this.y - 1.5, x, this.y + 1.5, INK);
    this.page.words(`${bar} mm on paper`, MARGIN + bar + 3, this.y - 1.2, { size: 3, colour: MUTED });
    this.page.words(`Scale ${ratioWords(ratio)}`, this.size.width - MARGIN, this.y - 1.2, {
      size: 3.4,
      bold: true,
      align: 'right',
    });
    this.y -= 6;
  }

  private facts(): void {
    const { job, shapes, run } = this.of;
    const { sheet, units } = job;
    const n = (mm: number) => formatLength(mm, units);
    const grams = gramsOf(shapes.keptMm2, sheet);
    const weight =
      grams === null
        ? null
        : grams < 1000
          ? `${Number(grams.toPrecision(2))} g`
          : `${(grams / 1000).toPrecision(2)} kg`;
    const stock = [
      sheet.material,
      sheet.thickness === null ? '' : n(sheet.thickness),
      `${n(sheet.width)} × ${n(sheet.height)}`,
    ];
    const rows: [string, string][] = [
      ['Size', `${n(boxWidth(shapes.box))} × ${n(boxHeight(shapes.box))}`],
      ['Pieces', shapes.pieces === 0 ? 'what stays of the sheet' : String(shapes.pieces)],
      ...(weight && shapes.pieces > 0 ? [['Weight', `about ${weight}, by the usual density`] as [string, string]] : []),
      ['Stock', stock.filter(Boolean).join(', ')],
      ...(job.machine ? [['Machine', job.machine.name] as [string, string]] : []),
      ...(run.operations.some((o) => o.times)
        ? [
            [
              'Time',
              `${formatSeconds(run.seconds)}${run.unknown.length > 0 ? `, without ${run.unknown.join(', ')}` : ''}`,
            ] as [string, string],
          ]
        : []),
    ];
    this.heading('What it is');
    for (const [name, value] of rows) {
      this.room(6);
      this.page.words(name, MARGIN, this.y, { colour: MUTED });
      this.y = this.page.block(value, MARGIN + 32, this.y, this.across - 32);
    }
  }

  private operations(): void {
    const { job, run } = this.of;
    this.heading('How it is made, in this order');
    for (const { operation, times } of run.operations) {
      this.room(6);
      this.page.bar(MARGIN, this.y + 0.4, 7, 1.6, OPERATION_INK[operation.kind]);
      const words = [
        ...layerSettings(operation, job.sheet, job.machine?.kind ?? null).map((s) => s.words),
        ...sideWords(operation),
        ...(times ? [formatSeconds(times.seconds)] : []),
      ];
      this.page.words(operation.name, MARGIN + 10, this.y, { bold: true });
      this.y = this.page.block(words.join(', ') || 'nothing set', MARGIN + 50, this.y, this.across - 50);
    }
  }

  private words(): void {
    const texts = this.of.job.parts.flatMap((part) =>
      part.members.flatMap((m) => (m.kind === 'lettering' && m.text.trim() ? [m.text] : [])),
    );
    if (texts.length === 0) return;
    this.heading('Words, letter by letter');
    for (const text of texts) {
      // A space that is doubled is seen as that.
      this.line(text.replace(/ {2,}/g, (spaces) => '·'.repeat(spaces.length)));
      for (const sentence of missedIn(text)) this.line(sentence, CAUTION);
    }
  }

  private leftAsIs(): void {
    const left = this.of.findings.filter((f) => f.leftReason !== null);
    if (left.length === 0) return;
    this.heading('Seen, and left as it is');
    for (const { sentence, leftReason } of left) this.line(leftReason ? `${sentence} ${leftReason}` : sentence);
  }

  private proof(): void {
    const { differences, machine, files, findings } = this.of;
    const faults = findings.filter((f) => f.leftReason === null && f.severity === 'fault');
    this.heading('Proof');
    if (differences === null) this.line('Not proved.', FAULT);
    else if (differences.length > 0) for (const sentence of differences) this.line(sentence, FAULT);
    else
      this.line(
        `Run as ${machine ?? 'any machine'} does, ${files.length === 1 ? 'the file does' : 'the files do'} what is drawn.`,
        GOOD,
      );
    for (const { sentence } of faults) this.line(`Still open: ${sentence}`, FAULT);
    for (const { name, sha256 } of files) {
      this.room(10);
      this.page.words(name, MARGIN, this.y);
      this.y -= 4.2;
      this.page.words(`SHA-256 ${sha256}`, MARGIN, this.y, { size: 2.6, colour: MUTED });
      this.y -= 5;
    }
  }

  private signature(): void {
    this.room(26);
    this.y -= 16;
    const half = this.across / 2 - 5;
    for (const [x, words] of [
      [MARGIN, 'Approved by'],
      [MARGIN + half + 10, 'Date'],
    ] as const) {
      this.page.rule(x, this.y, x + half, this.y, INK);
      this.page.words(words, x, this.y - 4.5, { size: 3, colour: MUTED });
    }
    this.y -= 8;
  }
}

/** Where a cut runs, in words. */
const sideWords = ({ kind, kerfSide }: Operation): string[] =>
  kind !== 'cut'
    ? []
    : [{ line: 'on the outlines', beside: 'beside the outlines', machine: 'side left to the machine' }[kerfSide]];
