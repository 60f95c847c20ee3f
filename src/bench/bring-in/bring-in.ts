/** Bringing a file in: it is read in a worker of its own, looked at in a dialog, kept on the server and put on the sheet. */
import { create } from 'zustand';
import { callWithBytes } from '@/api/call';
import { API } from '@/api/endpoints';
import { freeId } from '@/core/commands/ids';
import { readPensAs } from '@/core/commands/pens';
import { layPicture, layPicturesOf, type PictureAtHand, tracePicture } from '@/core/commands/pictures';
import { boxCentre, isEmptyBox } from '@/core/geometry/point';
import { type BringInChoices, broughtParts } from '@/core/job/bring-in';
import { LIMITS } from '@/core/limits';
import type { StartId } from '@/core/tracing/starts';
import { readingFile } from '@/worker/client';
import type { PictureFound } from '@/worker/picture-reading';
import type { FilePreview, Looked } from '@/worker/reading';
import { SHEET_IS_FULL } from '../picture-edits';
import { fitSheet } from '../sheet/camera';
import { bringIntoSight, change, choosePicture, dispatch, say, select, useBench } from '../store';
import { whenComputed } from '../when-computed';

type Incoming = {
  readonly name: string;
  readonly bytes: Uint8Array;
  /** Number of the page that is looked at, from 0. */
  readonly page: number;
  /** 0 to 1 while it is read. */
  readonly share: number;
  readonly preview: FilePreview | null;
};

/** A file that is kept on the server: its name, and what it and its drawing are called there. */
type Kept = {
  readonly name: string;
  readonly original: string;
  readonly drawing: string;
  /** What the pictures in it are called. */
  readonly pictures: readonly string[];
};

/** The file that is being brought in; null for none. */
export const useBringIn = create<{ readonly incoming: Incoming | null }>(() => ({ incoming: null }));

let stopReading: (() => void) | null = null;

const put = (part: Partial<Incoming>) =>
  useBringIn.setState(({ incoming }) => ({ incoming: incoming && { ...incoming, ...part } }));

/** Read a file and show what is in it. */
export async function bringIn(name: string, bytes: Uint8Array): Promise<void> {
  useBringIn.setState({ incoming: { name, bytes, page: 0, share: 0, preview: null } });
  await readPage(bytes, 0);
}

/** Look at another page of the file. What is seen of the one before stays until it is there. */
export async function turnTo(page: number): Promise<void> {
  const { incoming } = useBringIn.getState();
  if (!incoming || incoming.page === page) return;
  put({ page, share: 0 });
  await readPage(incoming.bytes, page);
}

async function readPage(bytes: Uint8Array, page: number): Promise<void> {
  stopReading?.();
  const reading = readingFile(bytes, page, (share) => put({ share }));
  stopReading = reading.stop;
  const preview = await reading.done;
  const { incoming } = useBringIn.getState();
  if (incoming?.bytes === bytes && incoming.page === page) put({ preview });
}

/** Files that wait until the one before them is brought in or left. */
const waiting: File[] = [];

/** Several files, one after the other. */
export async function bringInFiles(files: readonly File[]): Promise<void> {
  waiting.push(...files);
  if (useBringIn.getState().incoming === null) await nextFile();
}

async function nextFile(): Promise<void> {
  const file = waiting.shift();
  if (file) await bringIn(file.name, new Uint8Array(await file.arrayBuffer()));
}

/** Stop reading the file. */
export const stopBringingIn = (): void => stopReading?.();

/** Leave the file, and go on with the next one that waits. */
export function leaveBringingIn(): void {
  stopReading?.();
  stopReading = null;
  useBringIn.setState({ incoming: null });
  void nextFile();
}

/** Keep the file that is brought in and the drawing read from it on the server; null when it was left meanwhile. */
export async function keepBroughtIn(looked: Looked): Promise<Kept | null> {
  const { incoming } = useBringIn.getState();
  if (!incoming) return null;
  const { bytes, name } = incoming;
  const { id: original } = await callWithBytes(API.keepAsset, new Blob([new Uint8Array(bytes)]), name);
  const { id: drawing } = await callWithBytes(API.keepAsset, looked.drawing, '');
  const pictures: string[] = [];
  for (const { pixels } of looked.pictures)
    pictures.push((await callWithBytes(API.keepAsset, new Blob([new Uint8Array(pixels)]), '')).id);
  return useBringIn.getState().incoming?.bytes === bytes ? { name, original, drawing, pictures } : null;
}

/** Keep the picture that is brought in, the file and its pixels, on the server; null when it was left meanwhile. */
export async function keepPicture(found: PictureFound): Promise<PictureAtHand | null> {
  const { incoming } = useBringIn.getState();
  if (!incoming) return null;
  const { bytes, name } = incoming;
  const { id: original } = await callWithBytes(API.keepAsset, new Blob([new Uint8Array(bytes)]), name);
  const { id: pixels } = await callWithBytes(API.keepAsset, new Blob([new Uint8Array(found.pixels)]), '');
  const { columns, rows, tones } = found;
  return useBringIn.getState().incoming?.bytes === bytes
    ? { name, original, pixels, columns, rows, likely: tones }
    : null;
}

/** Lay a picture that is kept on the sheet, a pixel so many mm wide; traced from a start, or only laid there. */
export function putPicture(kept: PictureAtHand, scale: number, start: StartId | null): void {
  const { job } = useBench.getState();
  const { width, height } = job.sheet;
  const laid = layPicture(job, kept, scale, { x: width / 2, y: height / 2 });
  leaveBringingIn();
  if (laid.pictureId === null) {
    say(SHEET_IS_FULL);
    return;
  }
  const pictureId = laid.pictureId;
  const traced = start && tracePicture(laid.job, pictureId, start);
  // One step of undo: the picture, and what is traced from it.
  dispatch(() => (traced || laid).job);
  if (traced?.partId) select(traced.partId);
  else choosePicture(pictureId);
  fitSheet();
}

/** Put a drawing that is kept on the sheet as chosen. */
export function putOnSheet(kept: Kept, looked: Looked, choices: Omit<BringInChoices, 'at'>): void {
  const { job } = useBench.getState();
  const { groups, texts, box } = looked;
  const at = { x: job.sheet.width / 2, y: job.sheet.height / 2 };
  let first: string | null = null;
  let leftOut = 0;
  change((draft) => {
    const made: string[] = [];
    const parts = broughtParts(job, { ...kept, groups, texts, box }, { ...choices, at }, (stem) => {
      const id = freeId(job, stem, made);
      made.push(id);
      return id;
    });
    draft.parts.push(...parts);
    // What a pen was said to be for is kept with the job, and offered with the next file.
    const said = groups.flatMap(({ pen }, i) => {
      const operationId = choices.operations[i];
      return pen === undefined || !operationId ? [] : [{ pen, operationId }];
    });
    draft.operations = readPensAs(job, said).operations;
    const laid = looked.pictures.map((picture, i) => ({
      ...picture,
      name: kept.name,
      original: null,
      pixels: kept.pictures[i] as string,
    }));
    const middle = isEmptyBox(box) ? { x: 0, y: 0 } : boxCentre(box);
    draft.pictures = layPicturesOf(job, laid, { factor: choices.factor, middle, at }).pictures;
    leftOut = job.pictures.length + laid.length - draft.pictures.length;
    first = parts[0]?.id ?? null;
  });
  leaveBringingIn();
  if (leftOut > 0)
    say(
      `${leftOut} of its pictures ${leftOut === 1 ? 'is' : 'are'} left out: up to ${LIMITS.placedPictures} may lie on a sheet.`,
    );
  if (first === null) {
    choosePicture(useBench.getState().job.pictures.at(-1)?.id ?? null);
    return;
  }
  const partId: string = first;
  select(partId);
  whenComputed(() => {
    const box = useBench.getState().view?.parts.find((p) => p.id === partId)?.box;
    if (box && !isEmptyBox(box)) bringIntoSight(box);
  });
}
