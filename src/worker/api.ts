/** What the page asks the worker: of a document by its number, which was sent just before. */
import type { Job } from '../core/document/schema';
import type { DocumentUpdate } from './documents';
import type { Host } from './host';

/** Questions about a document, by the host's names for them. */
export const ASKED_OF_DOCUMENTS = [
  'areasApart',
  'asCut',
  'bridgeThrough',
  'bridgeVariants',
  'compared',
  'cutLine',
  'cutNear',
  'edgesOf',
  'evaluate',
  'files',
  'fillSheet',
  'drillPaper',
  'inHand',
  'layOut',
  'machineFiles',
  'mendRows',
  'middleOf',
  'prove',
  'proveNames',
  'regionAt',
  'panelAt',
  'paper',
  'rowFiles',
  'rows',
  'running',
  'takeAlong',
  'safePart',
  'searchLonger',
  'sheetFiles',
  'sheetFindings',
  'sheets',
  'sizingTo',
  'started',
  'stopLaying',
  'stopProvingNames',
  'stopSearch',
  'summary',
  'testPiece',
  'timeBySetting',
  'toolTrials',
] as const satisfies readonly (keyof Host)[];

/** A question about a document. */
export type AskedOfDocument = (typeof ASKED_OF_DOCUMENTS)[number];

/** Questions about typefaces. */
export const ASKED_OF_FACES = [
  'faceAbout',
  'faceSample',
  'faceTrial',
  'letterForms',
] as const satisfies readonly (keyof Host)[];

/** A question about a typeface. */
export type AskedOfFace = (typeof ASKED_OF_FACES)[number];

/** What the page asks, about documents themselves. */
export type Computing = Pick<Host, AskedOfDocument | AskedOfFace>;

type ByNumber<F> = F extends (job: Job, ...rest: infer R) => infer A ? (serial: number, ...rest: R) => A : never;

/** What the worker answers. */
export type WorkerApi = { [K in AskedOfDocument]: ByNumber<Host[K]> } & Pick<Host, AskedOfFace> & {
    hold: (update: DocumentUpdate) => void;
  };
