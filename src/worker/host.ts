/** The core at work behind the bench: evaluates the newest document, sets samples of words, writes files. */
import type { Chosen } from '../core/commands/chosen';
import type { Job, PlacedBridge, StepOf } from '../core/document/schema';
import { pathData } from '../core/formats/path-data';
import type { FileFormat } from '../core/formats/written';
import type { ClipEngine } from '../core/geometry/boolean/engine';
import { scriptEngine } from '../core/geometry/boolean/engine-script';
import { loadWasmEngine } from '../core/geometry/boolean/engine-wasm';
import { type Box, isEmptyBox, type Point } from '../core/geometry/point';
import { asCut } from '../core/job/as-cut';
import { bridgeVariants } from '../core/job/compare-bridges';
import { type ToolTrial, toolTrials } from '../core/job/compare-tools';
import { Evaluator } from '../core/job/evaluate';
import { drawingOf, type ExportScope, fileName, writeFile } from '../core/job/export';
import { pictureOf } from '../core/job/picture';
import { regionAt } from '../core/job/region-at';
import { atSafeSize, type SafePart, thickenedEnough } from '../core/job/safe';
import { type Sizing, sizingTo } from '../core/job/size';
import type { SavedExtras } from '../core/job/summary';
import { outlinesInHand } from '../core/kinds/steps/nodes';
import { SHIPPED_FACES } from '../core/lettering/catalogue';
import type { Typeface } from '../core/lettering/face';
import { layoutLettering, letterPaths, linesOf } from '../core/lettering/layout';
import { sameFamily } from '../core/lettering/pick';
import { loadTypeface } from '../core/lettering/typeface';
import { bridgeThrough } from '../core/prepare/bridges/through';
import type { FaceAnswer, FaceLookup } from '../core/prepare/prepared';
import { Printer } from './printing';
import {
  type BridgeVariantView,
  type CutPieceView,
  cutViewOf,
  type JobUpdate,
  type JobView,
  updateOf,
  variantViewOf,
  viewOf,
} from './view';

export type FaceSample = {
  readonly family: string;
  /** Path data with y downwards, or null when the face can't be used. */
  readonly d: string | null;
  /** Whether it is drawn as lines, not filled. */
  readonly lines: boolean;
  readonly box: { readonly x: number; readonly y: number; readonly width: number; readonly height: number };
  readonly missing: readonly string[];
};

export type WrittenFile = { readonly name: string; readonly bytes: Uint8Array };
export type OnProgress = (done: number, of: number) => void;

/** How long a step may run before others get a turn, in ms. */
const TURN_MS = 12;
/** A face that did not load is tried again after this, in ms. */
const RETRY_MS = 5_000;
/** Characters of the user's words shown in each face. */
const SAMPLE_CHARACTERS = 28;

/** `fetchFace` brings the bytes of a shipped typeface file, `fetchAsset` the text of a kept drawing; `pause` lets newer calls in; `now` is a clock in ms. */
export class Host {
  private readonly evaluators: Promise<Evaluator>;
  private readonly faces = new Map<string, Promise<FaceAnswer>>();
  private newest = 0;
  private newestCut = 0;
  private newestTrials = 0;
  private newestVariants = 0;
  private given: { readonly serial: number; readonly view: JobView } | null = null;

  constructor(
    private readonly fetchFace: (file: string) => Promise<Uint8Array>,
    private readonly fetchAsset: (id: string) => Promise<string>,
    private readonly pause: () => Promise<void>,
    private readonly now: () => number,
    engine: Promise<ClipEngine> = loadWasmEngine().catch(() => scriptEngine),
  ) {
    this.evaluators = engine.then((e) => new Evaluator(e));
  }

  /**
   * The view of a document, as an update against the one with serial `held` where that is the last one given; null when
   * a newer document has come in meanwhile.
   */
  async evaluate(job: Job, held: number | null, onProgress?: OnProgress): Promise<JobUpdate | null> {
    const mine = ++this.newest;
    const evaluator = await this.evaluators;
    const faces = await this.lookup(job);
    if (mine !== this.newest) return null;
    const steps = evaluator.steps(job, faces);
    let turn = this.now();
    for (;;) {
      const step = steps.next();
      if (step.done) return this.updateFor(viewOf(step.value, evaluator.memo), held);
      if (this.now() - turn > TURN_MS) {
        onProgress?.(step.value.done, step.value.of);
        await this.pause();
        if (mine !== this.newest) return null;
        turn = this.now();
      }
    }
  }

  private updateFor(view: JobView, held: number | null): JobUpdate {
    const before = this.given?.serial === held ? this.given.view : null;
    const serial = (this.given?.serial ?? 0) + 1;
    this.given = { serial, view };
    return updateOf(view, serial, before);
  }

  /** The picture of a document for lists, and its count of open findings. */
  async summary(job: Job): Promise<SavedExtras> {
    const evaluator = await this.evaluators;
    const result = evaluator.evaluate(job, await this.lookup(job));
    return { picture: pictureOf(job, result), openFindings: result.findings.filter((f) => f.left === null).length };
  }

  /** Files of a document, computed anew from it; empty when there is nothing to write. */
  async files(job: Job, formats: readonly FileFormat[], scope: ExportScope): Promise<WrittenFile[]> {
    const evaluator = await this.evaluators;
    const result = evaluator.evaluate(job, await this.lookup(job));
    const drawing = drawingOf(job, result, scope);
    if (!drawing) return [];
    return formats.map((format) => ({
      name: fileName(job, format, scope),
      bytes: writeFile(drawing, format, job.export),
    }));
  }

  /** The pieces there are after the cut; null when a newer document has come in meanwhile. */
  async asCut(job: Job): Promise<CutPieceView[] | null> {
    const mine = ++this.newestCut;
    const evaluator = await this.evaluators;
    const faces = await this.lookup(job);
    await this.pause();
    if (mine !== this.newestCut) return null;
    return cutViewOf(asCut(evaluator.engine, job, evaluator.evaluate(job, faces)), new Printer(evaluator.memo));
  }

  /** Bounds of the smallest region around a point, of everything but what is chosen; null when there is none. */
  async regionAt(job: Job, at: Point, except: Chosen): Promise<Box | null> {
    const evaluator = await this.evaluators;
    return regionAt(evaluator.evaluate(job, await this.lookup(job)), at, except)?.box ?? null;
  }

  /** A part at its least safe size, or thickened just enough; or a sentence why not. */
  async safePart(job: Job, partId: string, by: 'size' | 'thickening', capHeightMm: number): Promise<SafePart> {
    const evaluator = await this.evaluators;
    const faces = await this.lookup(job);
    return by === 'size'
      ? atSafeSize(job, partId, evaluator, faces)
      : thickenedEnough(job, partId, evaluator, faces, capHeightMm);
  }

  /** The sizing that gives what is chosen a width or a height on the sheet; null when nothing is drawn of it. */
  async sizingTo(
    job: Job,
    chosen: Chosen,
    side: 'width' | 'height',
    mm: number,
    everything: boolean,
  ): Promise<Sizing | null> {
    const evaluator = await this.evaluators;
    return sizingTo(job, chosen, side, mm, everything, evaluator, await this.lookup(job));
  }

  /** Where a bridge put into a part at a point of the sheet would start; null when there is no gap. */
  async bridgeThrough(job: Job, partId: string, at: Point): Promise<PlacedBridge | null> {
    const evaluator = await this.evaluators;
    const part = evaluator.prepare(job, partId, await this.lookup(job));
    const notes = part?.bridged;
    if (!part) return null;
    return bridgeThrough(
      notes?.before ?? part.solid,
      { stockInside: part.keep === 'inside', frames: part.frames, leastMm: null, thicknessMm: null, rims: [] },
      at,
    );
  }

  /** The step that puts a part's outlines in hand as they are now; null when there is nothing to take in hand. */
  async inHand(job: Job, partId: string): Promise<StepOf<'nodes'> | null> {
    const evaluator = await this.evaluators;
    const part = evaluator.prepare(job, partId, await this.lookup(job));
    return part ? outlinesInHand(part) : null;
  }

  /** A part bridged in several ways; null when a newer comparison has been asked for meanwhile. */
  async bridgeVariants(
    job: Job,
    partId: string,
    step: StepOf<'bridge'>,
    onProgress?: OnProgress,
  ): Promise<BridgeVariantView[] | null> {
    const mine = ++this.newestVariants;
    const evaluator = await this.evaluators;
    const out: BridgeVariantView[] = [];
    for (const variant of bridgeVariants(job, partId, step, evaluator, await this.lookup(job))) {
      out.push(variantViewOf(variant, new Printer(evaluator.memo)));
      onProgress?.(out.length, out.length + 1);
      await this.pause();
      if (mine !== this.newestVariants) return null;
    }
    return out;
  }

  /** The job's tools tried on a part; null when a newer question has been asked meanwhile. */
  async toolTrials(job: Job, partId: string, onProgress?: OnProgress): Promise<ToolTrial[] | null> {
    const mine = ++this.newestTrials;
    const evaluator = await this.evaluators;
    const trying = toolTrials(job, partId, evaluator, await this.lookup(job));
    let turn = this.now();
    for (;;) {
      const step = trying.next();
      if (step.done) return step.value;
      if (this.now() - turn <= TURN_MS) continue;
      onProgress?.(Math.floor(step.value), job.tools.length);
      await this.pause();
      if (mine !== this.newestTrials) return null;
      turn = this.now();
    }
  }

  /** The true middle of a letter's strokes, as path data on the sheet. */
  async middleOf(job: Job, partId: string, letter: string): Promise<string> {
    const evaluator = await this.evaluators;
    return pathData(evaluator.middleOf(job, partId, letter, await this.lookup(job)), null, 4);
  }

  /** The user's words set in every shipped face. */
  async samples(text: string): Promise<FaceSample[]> {
    const first = linesOf(text).find((line) => line.trim() !== '') ?? 'Lettering';
    const words = [...first.trim()].slice(0, SAMPLE_CHARACTERS).join('');
    return Promise.all(
      SHIPPED_FACES.map(async ({ family }): Promise<FaceSample> => {
        const answer = await this.face(family);
        const empty = { x: 0, y: 0, width: 1, height: 1 };
        if ('sentence' in answer) return { family, d: null, lines: false, box: empty, missing: [] };
        return sampleOf(family, answer.typeface, words);
      }),
    );
  }

  private async lookup(job: Job): Promise<FaceLookup> {
    const families = new Set(
      job.parts.flatMap((p) => p.members.flatMap((m) => (m.kind === 'lettering' ? [m.face] : []))),
    );
    await this.bringDrawings(job);
    const held = new Map<string, FaceAnswer>();
    for (const family of families) held.set(family, await this.face(family));
    return (wish) => held.get(wish.face) ?? { sentence: 'It is not among the typefaces here.' };
  }

  /** Drawings a job is made of, put at hand; one that can't be fetched is a finding. */
  private async bringDrawings(job: Job): Promise<void> {
    const evaluator = await this.evaluators;
    const ids = new Set(job.parts.flatMap((p) => p.members.flatMap((m) => (m.kind === 'artwork' ? [m.drawing] : []))));
    await Promise.all(
      [...ids].map(async (id) => {
        if (evaluator.hasDrawing(id)) return;
        await this.fetchAsset(id).then(
          (text) => evaluator.addDrawing(id, text),
          () => false,
        );
      }),
    );
  }

  private face(family: string): Promise<FaceAnswer> {
    const key = family.trim().toLowerCase();
    const known = this.faces.get(key);
    if (known) return known;
    const loading = this.load(family);
    this.faces.set(key, loading);
    void loading.then((answer) => {
      if ('sentence' in answer) setTimeout(() => this.faces.delete(key), RETRY_MS);
    });
    return loading;
  }

  private async load(family: string): Promise<FaceAnswer> {
    const shipped = SHIPPED_FACES.find((face) => sameFamily(face.family, family));
    if (!shipped) return { sentence: 'It is not among the typefaces here.' };
    try {
      const loaded = await loadTypeface(await this.fetchFace(shipped.file));
      return loaded.ok ? { typeface: loaded.typeface } : { sentence: loaded.sentence };
    } catch {
      return { sentence: 'Its file could not be fetched.' };
    }
  }
}

function sampleOf(family: string, face: Typeface, words: string): FaceSample {
  const layout = layoutLettering(
    { text: words, size: { by: 'capital', mm: 10 }, letterSpacing: 0, lineSpacing: 1, align: 'left' },
    face,
  );
  const paths = letterPaths(layout, face);
  const box = isEmptyBox(layout.box) ? { minX: 0, minY: 0, maxX: 1, maxY: 1 } : layout.box;
  return {
    family,
    d: pathData(paths, 0, 2),
    lines: face.lines,
    box: { x: box.minX, y: -box.maxY, width: box.maxX - box.minX, height: box.maxY - box.minY },
    missing: layout.missing,
  };
}
