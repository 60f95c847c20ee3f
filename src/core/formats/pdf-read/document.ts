/**
 * A PDF opened with pdf.js, which takes the file apart: objects, streams, fonts, forms. What a page draws is read from its list of
 * operators (page.ts); nothing is painted.
 */
import type { PDFDocumentProxy, PDFPageProxy } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { LIMITS } from '../../limits';
import { Finder, type Reading, ReadingStops, type ReadProgress } from '../read-drawing';
import type { Opened } from '../read-format';
import { PageReader } from './page';
import type { Operators } from './state';

/** Millimetres of a point. */
const MM_PER_POINT = 25.4 / 72;

type PdfJs = typeof import('pdfjs-dist/legacy/build/pdf.mjs');

/** Appends to a list, as the engine does it. */
const PUSH = Array.prototype.push;

async function loadPdfJs(): Promise<PdfJs> {
  // It keeps outlines of letters in half precision where there is such a thing; letters here are to be exact.
  Reflect.deleteProperty(globalThis, 'Float16Array');
  // Its own worker is run in this thread, which is one that can be ended.
  // @ts-expect-error: it comes without types.
  await import('pdfjs-dist/legacy/build/pdf.worker.mjs');
  const pdf = await import('pdfjs-dist/legacy/build/pdf.mjs');
  // It brings a way to append to lists for engines of long ago, which is many times as slow for all that runs in this thread.
  Array.prototype.push = PUSH;
  return pdf;
}

const LOCKED =
  'This PDF is locked with a password. Save it without one, or print it into a new PDF, and bring that in.';
const UNREADABLE = 'This PDF is damaged and can’t be read.';

/** Opens a PDF; a sentence where it is locked or damaged. */
export async function openPdf(bytes: Uint8Array): Promise<Opened> {
  const pdf = await loadPdfJs();
  const loading = pdf.getDocument({
    // It takes what it is given for itself.
    data: bytes.slice(),
    disableFontFace: true,
    fontExtraProperties: true,
    useSystemFonts: false,
    useWorkerFetch: false,
    useWasm: false,
    // Pictures as pixels, and none that is larger than any is unpacked.
    isOffscreenCanvasSupported: false,
    isImageDecoderSupported: false,
    maxImageSize: LIMITS.decodedPixels,
    enableXfa: false,
    stopAtErrors: false,
    verbosity: pdf.VerbosityLevel.ERRORS,
  });
  try {
    const document = await loading.promise;
    return {
      ok: true,
      pages: Math.min(document.numPages, LIMITS.pages),
      read: (page, progress) => readPage({ pdf, document }, page, progress),
      close: () => loading.destroy(),
    };
  } catch (fault) {
    await loading.destroy();
    const isLocked = fault instanceof Error && fault.name === 'PasswordException';
    return { ok: false, sentence: isLocked ? LOCKED : UNREADABLE };
  }
}

/** What a page hands over in pieces, as the pinned version of pdf.js has it: it has no limit of its own for how many there are. */
type InPieces = {
  _renderPageChunk: (piece: unknown, state: { readonly operatorList: Operators }) => void;
};

/** The operators of a page, as many as are read. */
async function operatorsOf(
  page: PDFPageProxy,
  annotationMode: number,
): Promise<{ readonly operators: Operators; readonly isWhole: boolean }> {
  const most = LIMITS.pageOperators;
  const inPieces = page as unknown as InPieces;
  const takePiece = inPieces._renderPageChunk.bind(page);
  const tooMany = new Promise<Operators>((resolve) => {
    inPieces._renderPageChunk = (piece, state) => {
      takePiece(piece, state);
      if (state.operatorList.fnArray.length <= most) return;
      // What still comes is let go, until the file is closed.
      inPieces._renderPageChunk = () => {};
      resolve(state.operatorList);
    };
  });
  const { fnArray, argsArray } = await Promise.race([
    page.getOperatorList({ intent: 'print', annotationMode }) as Promise<Operators>,
    tooMany,
  ]);
  return {
    operators: { fnArray: fnArray.slice(0, most), argsArray: argsArray.slice(0, most) },
    isWhole: fnArray.length <= most,
  };
}

async function readPage(
  { pdf, document }: { readonly pdf: PdfJs; readonly document: PDFDocumentProxy },
  number: number,
  progress: ReadProgress,
): Promise<Reading> {
  try {
    const page = await document.getPage(number + 1);
    const { operators, isWhole } = await operatorsOf(page, pdf.AnnotationMode.DISABLE);
    progress(0.5);
    const layers = await document.getOptionalContentConfig({ intent: 'print' });
    const mmPerUnit = MM_PER_POINT * page.userUnit;
    const reader = new PageReader(new Finder(), pdf.OPS, {
      mmPerUnit,
      box: page.view as [number, number, number, number],
      turn: page.rotate,
      isVisible: (group) => layers.isVisible(group as never),
      layerName: (id) => (layers.getGroup(id) as { name?: string } | null)?.name ?? '',
      shared: (id) => (page.commonObjs.has(id) ? page.commonObjs.get(id) : null),
      // Those that several pages have in common are kept apart.
      image: (id) => [page.objs, page.commonObjs].find((all) => all.has(id))?.get(id) ?? null,
    });
    if (document.numPages > LIMITS.pages)
      reader.finder.note(
        `This file has ${document.numPages.toLocaleString('en')} pages; the first ${LIMITS.pages} can be chosen.`,
      );
    if (!isWhole)
      reader.finder.note(
        `The page draws more than ${LIMITS.pageOperators.toLocaleString('en')} things; what comes after them was left out.`,
      );
    try {
      reader.run(operators, (share) => progress(0.5 + share / 2));
    } catch (stop) {
      if (!(stop instanceof ReadingStops)) throw stop;
      reader.finder.breaksOff(stop.message);
    }
    progress(1);
    page.cleanup();
    const claim = { unit: 'points of 1/72 inch', mmPerUnit, stated: true, measure: 'points' } as const;
    return { ok: true, found: reader.finder.found('PDF', claim, reader.page) };
  } catch {
    return { ok: false, sentence: UNREADABLE };
  }
}
