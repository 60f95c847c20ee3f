/** What the state of the bench is made of. */
import type { Job } from '@/core/document/schema';
import type { Station } from '@/core/inspect/stations';
import type { AreaGo } from '@/core/job/areas-apart';
import type { ChangeFor } from '@/core/roster/kept';
import type { RunView } from '@/worker/run-view';
import type { CutPieceView, JobView } from '@/worker/view';
import type { AtCut, AtDot, AtIsland } from './at';

/** How the sheet is looked at. `worked`: what the lines that fill leave on the stock. */
export type Look = 'drawing' | 'outlines' | 'worked' | 'cut';

/** How far the document is kept on the server. */
export type SaveState =
  | { readonly kind: 'saved'; readonly at: string }
  | { readonly kind: 'waiting' }
  | { readonly kind: 'saving' }
  | { readonly kind: 'away'; readonly sentence: string }
  | { readonly kind: 'refused'; readonly sentence: string }
  | { readonly kind: 'stale'; readonly stored: { readonly version: number; readonly document: unknown } }
  | { readonly kind: 'gone' };

/** A step of undo: the document on its other side, and what was chosen when it was changed. */
export type Change = {
  readonly job: Job;
  readonly selection: Selection;
  readonly merge: string | null;
  readonly at: number;
};

/** One part and one of its members; `others` are further parts chosen along with it. */
export type Selection = {
  readonly partId: string | null;
  readonly memberId: string | null;
  readonly others: readonly string[];
};

/** What the next press on the sheet says; null for nothing. */
export type Pointing =
  | 'region'
  | 'panel'
  | 'bridge'
  | 'hang'
  | 'tab'
  | 'letter'
  | 'tone belongs'
  | 'tone apart'
  | 'level'
  | 'distance'
  | null;

/** Whose nodes are worked on: a path that was drawn, or a whole part; and the pen while it draws. */
export type AtNodes = {
  readonly partId: string;
  readonly memberId: string | null;
  /** The letter whose middle lines are worked on; null for outlines. */
  readonly letter: string | null;
  /** Chosen nodes, as "path:node". */
  readonly chosen: ReadonlySet<string>;
};

/** The document with its history, and how far it is kept. */
type DocumentSlice = {
  readonly id: string;
  /** The document that is kept. */
  readonly document: Job;
  /** What of it is on the sheet, and what commands change: the document itself, or the job of the row in hand. */
  readonly job: Job;
  /** The row of the roster that is in hand; null for the first. */
  readonly rowId: string | null;
  /** Whether a change is for all rows of the roster, or for the row in hand alone. */
  readonly changeFor: ChangeFor;
  /** Version on the server that the document was last in step with. */
  readonly version: number;
  readonly past: readonly Change[];
  readonly future: readonly Change[];
  readonly save: SaveState;
  /** Whether this browser keeps what the server does not have; null before that was tried. */
  readonly isKept: boolean | null;
};

/** What is chosen, and what is worked on in it. */
type ChosenSlice = {
  readonly selection: Selection;
  /** Letters picked one by one in the selected lettering, by where they start in its text; null when not picking. */
  readonly picked: readonly number[] | null;
  /** The next press on the sheet says which region to arrange to, or where to put a bridge in. */
  readonly pointing: Pointing;
  /** The island chosen at station Hold, and which of its bridges. */
  readonly atIsland: AtIsland | null;
  readonly atNodes: AtNodes | null;
  /** The dot chosen at station Fill. */
  readonly atDot: AtDot | null;
  /** Where a cut begins, or a tab, chosen at station Assign. */
  readonly atCut: AtCut | null;
  /** The picture on the sheet that is chosen. */
  readonly atPicture: string | null;
  /** A path is being drawn on the sheet. */
  readonly pen: boolean;
  /** The words that the path being drawn is for: they run along it; null for a path of its own. */
  readonly penFor: { readonly partId: string; readonly memberId: string } | null;
  /** Whether the pen keeps to edges of pictures that are near it. */
  readonly keepsToEdges: boolean;
  /** Whether sizing makes larger what would stay as it was set, and whether a shape's proportions are freed. */
  readonly everything: boolean;
  readonly freed: boolean;
};

/** What is looked at. */
type ShownSlice = {
  readonly station: Station;
  readonly look: Look;
  /** The only operation shown, or null for all. */
  readonly only: string | null;
  /** Whether the order in which things are run is shown on the sheet, at station Assign. */
  readonly showsOrder: boolean;
  /** Goes over areas that are shown on the sheet, and of which operation they are told; null for none. */
  readonly areaGoes: { readonly operation: string; readonly goes: readonly AreaGo[] } | null;
  /** A place on the sheet to bring into sight; a new object each time. */
  readonly goTo: { minX: number; minY: number; maxX: number; maxY: number } | null;
  /** What is said of the last thing that was done; null when there is nothing to say. */
  readonly said: string | null;
};

/** What the worker has computed. */
type ComputedSlice = {
  readonly view: JobView | null;
  /** The view that what stands beside the sheet speaks of: it follows when the frame with the new sheet was drawn. */
  readonly viewBeside: JobView | null;
  /** The document the view was computed from; another one while newer work is under way. */
  readonly viewOf: Job | null;
  /** The pieces after the cut, while that look is chosen. */
  readonly cutPieces: readonly CutPieceView[] | null;
  /** The document as it is run; null before that was asked. */
  readonly run: RunView | null;
  /** How much longer, in seconds, it takes since it was last changed; null where that was a while ago. */
  readonly runDiffers: number | null;
  readonly progress: { done: number; of: number } | null;
  readonly workerFault: string | null;
};

/** All there is to know of an open bench. */
export type BenchState = DocumentSlice & ChosenSlice & ShownSlice & ComputedSlice;
