/** The core at work behind the bench: what it is asked about documents, answered in turns by one runner, of the same document from its last result. */
import type { Chosen } from '../core/commands/chosen';
import { eachSheet } from '../core/commands/sheets';
import type { TimedSetting } from '../core/commands/timed-settings';
import type { Job, StepOf } from '../core/document/schema';
import type { FileFormat } from '../core/formats/written';
import type { ClipEngine } from '../core/geometry/boolean/engine';
import { scriptEngine } from '../core/geometry/boolean/engine-script';
import { loadWasmEngine } from '../core/geometry/boolean/engine-wasm';
import type { Path } from '../core/geometry/path';
import { pathData } from '../core/geometry/path-data';
import type { Box, Point } from '../core/geometry/point';
import { type AreasApart, areasApart } from '../core/job/areas-apart';
import { asCut } from '../core/job/as-cut';
import { bridgeVariants } from '../core/job/compare-bridges';
import { type ToolTrial, toolTrials } from '../core/job/compare-tools';
import { type CutNear, cutLine, cutNear } from '../core/job/cut-near';
import { drillPaper } from '../core/job/drill-paper';
import type { JobResult, Progress } from '../core/job/evaluate';
import type { ExportScope } from '../core/job/export';
import { allFiles, type MadeFiles, makeFiles } from '../core/job/files';
import { machineFiles } from '../core/job/machine-files';
import { type Picture, pictureOf } from '../core/job/picture';
import { type Panel, panelAt, regionAt } from '../core/job/region-at';
import { atSafeSize, type SafePart, thickenedEnough } from '../core/job/safe';
import { type Sizing, sizingTo } from '../core/job/size';
import { type StartAnswers, type Started, startJob } from '../core/job/start';
import type { SavedExtras } from '../core/job/summary';
import { type TimeBySetting, timeBySetting } from '../core/job/time-by-setting';
import { outlinesInHand } from '../core/kinds/steps/nodes';
import type { PinnedBridge } from '../core/prepare/bridges/notes';
import { bridgeThrough } from '../core/prepare/bridges/through';
import type { FaceLookup } from '../core/prepare/prepared';
import { jobInRow, placeOfRow } from '../core/roster/in-row';
import { openGroups } from '../core/rules/groups';
import type { Material } from '../core/schema/shop/material';
import type { Search } from '../core/toolpath/ordering/search';
import { testPiece } from '../core/trial/test-piece';
import { dayOf } from '../core/units/day';
import type { Means } from './job-host';
import { type FoundLonger, LongerSearch, type OnFound } from './longer-search';
import { jobsOfPaper, type PaperAsked, type PaperMade, paperOf } from './papers';
import { Printer } from './printing';
import type { ProofView } from './proof-view';
import { type AskOfJob, comparison, proofOf } from './proving';
import { proofOfNames } from './proving-names';
import { RowHost } from './row-host';
import { type RunView, runViewOf } from './run-view';
import { type OnProgress, Runner } from './runner';
import { Sources } from './sources';
import { atOnce, edgeData, withProgress } from './steps';
import { type Taken, takeAlong } from './take-along';
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

/** A sheet of a job as it is seen among the others. */
export type SheetSeen = { readonly id: string; readonly picture: Picture; readonly openFindings: number };

/** A job as it would be started, its picture, and what would be found about it. */
export type StartedView = Started & { readonly picture: Picture; readonly findings: readonly string[] };

/** What is found about a job, and not left as it is. */
const openIn = ({ findings }: JobResult): readonly string[] => openGroups(findings).map((group) => group.sentence);

/**
 * The core behind the bench, with the last document it evaluated. `fetchFace` brings the bytes of a shipped typeface
 * file, `fetchAsset` those of a kept file; `pause` lets newer calls in; `now` is a clock in ms.
 */
export class Host extends RowHost {
  /** Tells one proving of names from a newer one. */
  private provingNames = 0;
  private readonly longer = new LongerSearch();
  /** The last document that was evaluated, and what it came to. */
  private last: { readonly job: Job; readonly faces: FaceLookup; readonly result: JobResult } | null = null;
  private given: { readonly serial: number; readonly view: JobView } | null = null;

  constructor(
    fetchFace: (file: string) => Promise<Uint8Array>,
    fetchAsset: (id: string) => Promise<Uint8Array>,
    pause: () => Promise<void>,
    now: () => number,
    engine: Promise<ClipEngine> = loadWasmEngine().catch(() => scriptEngine),
  ) {
    super(engine, new Runner(pause, now), new Sources(fetchFace, fetchAsset));
  }

  /**
   * The view of a document, as an update against the one with serial `held` where that is the last one given; null when
   * a newer document has come in meanwhile.
   */
  evaluate(job: Job, heldSerial: number | null, onProgress?: OnProgress): Promise<JobUpdate | null> {
    const { resultOf, updateFor } = this;
    return this.ask({ kind: 'view', onProgress }, job, function* (means) {
      const result = yield* resultOf(job, means);
      return updateFor(viewOf(result, means.evaluator.memo), heldSerial);
    });
  }

  /**
   * The picture of a document for lists, and its count of open findings; null when a newer one has been asked for
   * meanwhile. Whoever looks at the sheet goes first.
   */
  summary(job: Job): Promise<SavedExtras | null> {
    const { resultOf } = this;
    // A list of names is shown by its first.
    const first = jobInRow(job, placeOfRow(job, null), { today: dayOf(new Date()) });
    return this.ask({ kind: 'summary', isPatient: true }, first, function* (means) {
      const result = yield* resultOf(first, means);
      const picture = yield* pictureOf(first, result);
      let openFindings = openIn(result).length;
      for (const other of eachSheet(first))
        if (other !== first) openFindings += openIn(yield* resultOf(other, means)).length;
      return { picture, openFindings };
    });
  }

  /** The picture of each sheet of a document, in their order, and how much there is to look at; null when asked anew meanwhile. */
  sheets(job: Job): Promise<SheetSeen[] | null> {
    const { resultOf } = this;
    return this.ask({ kind: 'sheets' }, job, function* (means) {
      const seen: SheetSeen[] = [];
      for (const one of eachSheet(job)) {
        const result = yield* resultOf(one, means);
        const picture = yield* pictureOf(one, result);
        seen.push({ id: one.sheetId, picture, openFindings: openIn(result).length });
      }
      return seen;
    });
  }

  /** Files of the sheet in hand of a document, or of each of its sheets, checked and read back: all, or none and why. */
  files(job: Job, formats: readonly FileFormat[], scope: ExportScope, isEverySheet = false): Promise<MadeFiles> {
    const { resultOf } = this;
    return this.answer(job, function* (means) {
      const made: MadeFiles[] = [];
      for (const one of isEverySheet ? eachSheet(job) : [job])
        made.push(yield* makeFiles(one, yield* resultOf(one, means), formats, scope));
      return allFiles(made);
    });
  }

  /** The same as the machine of a document wants them. */
  machineFiles(job: Job, scope: ExportScope, isEverySheet = false): Promise<MadeFiles> {
    const { resultOf } = this;
    return this.answer(job, function* (means) {
      const made: MadeFiles[] = [];
      for (const one of isEverySheet ? eachSheet(job) : [job])
        made.push(yield* machineFiles(one, yield* resultOf(one, means), scope));
      return allFiles(made);
    });
  }

  /** The files for the machine of a document as that runs them, against what is meant; null when that was asked anew meanwhile. */
  prove(job: Job, scope: ExportScope, onProgress?: OnProgress): Promise<ProofView | null> {
    return proofOf(job, scope, this.asking(job, onProgress));
  }

  /** The files of all names of a list, or of the sheets they lie on, proved like those of a document; null when asked anew meanwhile. */
  async proveNames(job: Job, asked: { readonly scope: ExportScope; readonly today: string }, onProgress?: OnProgress) {
    const mine = ++this.provingNames;
    const prove = async (one: Job, scope: ExportScope) =>
      mine === this.provingNames ? proofOf(one, scope, this.asking(one)) : null;
    return proofOfNames(job, asked, prove, onProgress);
  }

  /** End the proving of names that is under way. */
  async stopProvingNames(_job: Job): Promise<void> {
    this.provingNames++;
  }

  /** What a file that was given out once has otherwise than one of now; null when that was asked anew meanwhile. */
  compared(job: Job, scope: ExportScope, file: { readonly name: string; readonly bytes: Uint8Array }) {
    return comparison(job, scope, file, this.asking(job));
  }

  /** A test piece of a document for one of its operations; a sentence where there is nothing to try. Null when asked anew meanwhile. */
  testPiece(job: Job, operationId: string): Promise<Job | { readonly sentence: string } | null> {
    const { resultOf } = this;
    return this.ask({ kind: 'test piece' }, job, function* (means) {
      return testPiece(job, yield* resultOf(job, means), operationId);
    });
  }

  /** A paper or a picture of a document; null when another was asked for meanwhile. */
  async paper(job: Job, asked: PaperAsked, onProgress?: OnProgress): Promise<PaperMade | null> {
    const set = await this.sources.paperFaces();
    // Faces of all that is on it are brought together.
    const all = { ...job, parts: jobsOfPaper(job, asked).flatMap((one) => one.parts) };
    return this.runner.ask({ kind: 'paper', onProgress }, async () => {
      const evaluator = await this.evaluators;
      return paperOf(job, asked, { evaluator, faces: await this.sources.of(all, evaluator), set });
    });
  }

  /** The paper to drill a wall by for a part. */
  drillPaper(job: Job, partId: string): Promise<MadeFiles> {
    const { resultOf } = this;
    return this.answer(job, function* (means) {
      return drillPaper(job, yield* resultOf(job, means), partId);
    });
  }

  /** A document packed with all that it names, to be taken along. */
  async takeAlong(job: Job): Promise<Taken> {
    return takeAlong(job, await this.evaluators, this.sources);
  }

  /** A document as it is run: in an order found quickly, or in that of its files, which nobody waits for; null when asked anew meanwhile. */
  running(job: Job, how: Search['how']): Promise<RunView | null> {
    const { resultOf } = this;
    return this.ask({ kind: `run ${how}`, isPatient: how === 'full' }, job, function* (means) {
      const result = yield* resultOf(job, means);
      return runViewOf(job, result.workBox, yield* withProgress(result.run(how)));
    });
  }

  /** How long an operation takes by one of its settings; null where it has no such setting, or that was asked anew meanwhile. */
  timeBySetting(
    job: Job,
    operationId: string,
    which: TimedSetting,
    onProgress?: OnProgress,
  ): Promise<{ readonly times: TimeBySetting | null } | null> {
    return this.ask({ kind: `time of ${operationId}`, isPatient: true, onProgress }, job, function* (means) {
      const { evaluator, faces } = means;
      return { times: yield* withProgress(timeBySetting(job, { operationId, which }, evaluator, faces)) };
    });
  }

  /** A longer search for the order of an operation, with what it found until it ended or was stopped; null where it found none, or another was asked for. */
  searchLonger(job: Job, operationId: string, onFound?: OnFound): Promise<FoundLonger | null> {
    const { resultOf, longer } = this;
    longer.begin();
    return this.ask({ kind: 'longer search', isPatient: true }, job, function* (means) {
      return yield* longer.steps(job, yield* resultOf(job, means), operationId, onFound);
    });
  }

  /** End the longer search that is under way: it answers with what it found. */
  async stopSearch(_job: Job): Promise<void> {
    this.longer.stop();
  }

  /** Which areas should be gone over together, of an operation and those like it; null where there is nothing to tell, or that was asked anew meanwhile. */
  areasApart(job: Job, operationId: string): Promise<AreasApart | null> {
    const { resultOf } = this;
    return this.ask({ kind: `areas ${operationId}`, isPatient: true }, job, function* (means) {
      return yield* withProgress(areasApart(job, yield* resultOf(job, means), operationId));
    });
  }

  /** The pieces there are after the cut; null when a newer document has come in meanwhile. */
  asCut(job: Job): Promise<CutPieceView[] | null> {
    const { resultOf } = this;
    return this.ask({ kind: 'cut' }, job, function* (means) {
      const { engine, memo } = means.evaluator;
      return cutViewOf(yield* asCut(engine, job, yield* resultOf(job, means)), new Printer(memo));
    });
  }

  /** Bounds of the smallest region around a point, of everything but what is chosen; null when there is none. */
  regionAt(job: Job, at: Point, except: Chosen): Promise<Box | null> {
    const { resultOf } = this;
    return this.answer(job, function* (means) {
      return regionAt(yield* resultOf(job, means), at, except)?.outline.box ?? null;
    });
  }

  /** The smallest panel around a point, of all parts but one; null when there is none. */
  panelAt(job: Job, at: Point, exceptPart: string): Promise<Panel | null> {
    const { resultOf } = this;
    return this.answer(job, function* (means) {
      return panelAt(yield* resultOf(job, means), at, exceptPart);
    });
  }

  /** A part at its least safe size, or thickened just enough; or a sentence why not. Null when that was asked anew meanwhile. */
  safePart(job: Job, partId: string, by: 'size' | 'thickening', capHeightMm: number): Promise<SafePart | null> {
    return this.ask({ kind: 'safe part' }, job, ({ evaluator, faces }) =>
      by === 'size'
        ? atSafeSize(job, partId, evaluator, faces)
        : thickenedEnough(job, partId, { evaluator, faces, capHeightMm }),
    );
  }

  /**
   * The sizing that gives what is chosen a width or a height on the sheet; null when nothing is drawn of it, or another was
   * asked for meanwhile.
   */
  sizingTo(
    job: Job,
    chosen: Chosen,
    { side, mm, everything }: { readonly side: 'width' | 'height'; readonly mm: number; readonly everything: boolean },
  ): Promise<Sizing | null> {
    return this.ask({ kind: 'sizing' }, job, ({ evaluator, faces }) =>
      sizingTo(job, chosen, { side, mm, everything, evaluator, faces }),
    );
  }

  /**
   * A starter with what was answered to it, and what lists show of that; null when another was asked for meanwhile, where only the
   * newest counts.
   */
  started(
    starter: Job,
    answers: StartAnswers,
    materials: readonly Material[],
    isNewestOnly: boolean,
  ): Promise<StartedView | null> {
    return this.ask({ kind: isNewestOnly ? 'start' : null }, starter, function* ({ evaluator, faces }) {
      const started = yield* startJob(starter, answers, { materials, evaluator, faces });
      const result = yield* evaluator.steps(started.job, faces);
      const picture = yield* pictureOf(started.job, result);
      return { ...started, picture, findings: openIn(result) };
    });
  }

  /** Where a bridge put into a part at a point of the sheet would start; null when there is no gap. */
  bridgeThrough(job: Job, partId: string, at: Point): Promise<PinnedBridge | null> {
    return this.answer(job, ({ evaluator, faces }) =>
      atOnce(() => {
        const part = evaluator.prepare(job, partId, faces);
        if (!part) return null;
        const stockInside = part.keep === 'inside';
        const ground = { stockInside, frames: part.frames, leastMm: null, thicknessMm: null, rims: [] };
        return bridgeThrough(part.bridged?.before ?? part.solid, ground, at);
      }),
    );
  }

  /** The cut nearest to a point of the sheet, of one part where that is given, and the letter there; null where there is none. */
  cutNear(job: Job, at: Point, partId: string | null): Promise<CutNear | null> {
    const { resultOf } = this;
    return this.answer(job, function* (means) {
      return cutNear(yield* resultOf(job, means), at, partId);
    });
  }

  /** The outline that a cut runs along, for what is dragged along it; null where there is no such cut. */
  cutLine(job: Job, of: Omit<CutNear, 'place'>): Promise<Path | null> {
    const { resultOf } = this;
    return this.answer(job, function* (means) {
      return cutLine(yield* resultOf(job, means), of);
    });
  }

  /** The step that puts a part's outlines in hand as they are now; null when there is nothing to take in hand. */
  inHand(job: Job, partId: string): Promise<StepOf<'nodes'> | null> {
    return this.answer(job, ({ evaluator, faces }) =>
      atOnce(() => {
        const part = evaluator.prepare(job, partId, faces);
        return part ? outlinesInHand(part) : null;
      }),
    );
  }

  /** A part bridged in several ways; null when a newer comparison has been asked for meanwhile. */
  bridgeVariants(
    job: Job,
    partId: string,
    step: StepOf<'bridge'>,
    onProgress?: OnProgress,
  ): Promise<BridgeVariantView[] | null> {
    return this.ask({ kind: 'ways to bridge', onProgress }, job, function* ({ evaluator, faces }) {
      const out: BridgeVariantView[] = [];
      for (const variant of bridgeVariants(job, partId, { step, evaluator, faces })) {
        out.push(variantViewOf(variant, new Printer(evaluator.memo)));
        yield { done: out.length, of: out.length + 1 };
      }
      return out;
    });
  }

  /** The job's tools tried on a part; null when a newer question has been asked meanwhile. */
  toolTrials(job: Job, partId: string, onProgress?: OnProgress): Promise<ToolTrial[] | null> {
    return this.ask({ kind: 'tools', onProgress }, job, function* ({ evaluator, faces }) {
      const trying = toolTrials(job, partId, evaluator, faces);
      let step = trying.next();
      for (; !step.done; step = trying.next()) yield { done: Math.floor(step.value), of: job.tools.length };
      return step.value;
    });
  }

  /** The true middle of a letter's strokes, as path data on the sheet. */
  middleOf(job: Job, partId: string, letter: string): Promise<string> {
    return this.answer(job, ({ evaluator, faces }) =>
      atOnce(() => pathData(evaluator.middleOf(job, partId, letter, faces), null, 4)),
    );
  }

  /** The edges in a picture that lies on the sheet, as path data there; empty where there are none, or no such picture. */
  async edgesOf(job: Job, pictureId: string): Promise<string> {
    const picture = job.pictures.find((p) => p.id === pictureId);
    if (!picture) return '';
    const { sources } = this;
    const answer = await this.runner.ask({ kind: null }, async () => {
      const evaluator = await this.evaluators;
      await sources.bringPictures(new Set([picture.pixels]), evaluator);
      return edgeData(evaluator, picture);
    });
    return answer ?? '';
  }

  private asking(job: Job, onProgress?: OnProgress): AskOfJob {
    const { resultOf } = this;
    return (kind, steps) =>
      this.ask({ kind, onProgress }, job, (means) =>
        steps({ engine: means.evaluator.engine, result: () => resultOf(job, means) }),
      );
  }

  /** What a document comes to: the last result where that is of this document. */
  private readonly resultOf = function* (
    this: Host,
    job: Job,
    { evaluator, faces }: Means,
  ): Generator<Progress, JobResult> {
    if (this.last?.job === job && this.last.faces === faces) return this.last.result;
    const result = yield* evaluator.steps(job, faces);
    this.last = { job, faces, result };
    return result;
  }.bind(this);

  private readonly updateFor = (view: JobView, heldSerial: number | null): JobUpdate => {
    const before = this.given?.serial === heldSerial ? this.given.view : null;
    const serial = (this.given?.serial ?? 0) + 1;
    this.given = { serial, view };
    return updateOf(view, serial, before);
  };
}
