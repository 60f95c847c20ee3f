/** Bringing a file in: it is read in a worker of its own, looked at in a dialog, kept on the server and put on the sheet. */
import { create } from 'zustand';
import { freeId } from '@/core/commands/ids';
import { isEmptyBox } from '@/core/geometry/point';
import { type BringInChoices, broughtParts } from '@/core/job/bring-in';
import { readingFile } from '@/worker/client';
import type { FilePreview, Looked } from '@/worker/reading';
import { bringIntoSight, change, select, useBench, whenComputed } from '../store';

type Incoming = {
  readonly name: string;
  readonly bytes: Uint8Array;
  /** 0 to 1 while it is read. */
  readonly share: number;
  readonly preview: FilePreview | null;
  /** Why it could not be kept. */
  readonly fault: string | null;
  readonly keeping: boolean;
};

export const useBringIn = create<{ readonly incoming: Incoming | null }>(() => ({ incoming: null }));

let stopReading: (() => void) | null = null;

const put = (part: Partial<Incoming>) =>
  useBringIn.setState(({ incoming }) => ({ incoming: incoming && { ...incoming, ...part } }));

/** Read a file and show what is in it. */
export async function bringIn(name: string, bytes: Uint8Array): Promise<void> {
  stopReading?.();
  useBringIn.setState({ incoming: { name, bytes, share: 0, preview: null, fault: null, keeping: false } });
  const reading = readingFile(bytes, (share) => put({ share }));
  stopReading = reading.stop;
  const preview = await reading.done;
  if (useBringIn.getState().incoming?.bytes === bytes) put({ preview: preview });
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

export const stopBringingIn = (): void => stopReading?.();

export function leaveBringingIn(): void {
  stopReading?.();
  stopReading = null;
  useBringIn.setState({ incoming: null });
  void nextFile();
}

async function keep(body: BodyInit, name: string): Promise<string> {
  const response = await fetch('/api/assets', {
    method: 'POST',
    body,
    headers: { 'x-name': encodeURIComponent(name) },
  });
  const answer = (await response.json()) as { id?: string; sentence?: string };
  if (!response.ok || !answer.id) throw new Error(answer.sentence ?? 'The server could not keep the file.');
  return answer.id;
}

/** Keep the file and its drawing, and put it on the sheet as chosen. */
export async function keepBroughtIn(looked: Looked, choices: Omit<BringInChoices, 'at'>): Promise<void> {
  const { incoming } = useBringIn.getState();
  if (!incoming || incoming.keeping) return;
  put({ keeping: true, fault: null });
  try {
    const original = await keep(new Blob([new Uint8Array(incoming.bytes)]), incoming.name);
    const drawing = await keep(looked.drawing, '');
    const { job } = useBench.getState();
    const brought = {
      name: incoming.name,
      drawing,
      original,
      groups: looked.groups,
      texts: looked.texts,
      box: looked.box,
    };
    let first: string | null = null;
    change((draft) => {
      const made: string[] = [];
      const parts = broughtParts(
        job,
        brought,
        { ...choices, at: { x: job.sheet.width / 2, y: job.sheet.height / 2 } },
        (stem) => {
          const id = freeId(job, stem, made);
          made.push(id);
          return id;
        },
      );
      draft.parts.push(...parts);
      first = parts[0]?.id ?? null;
    });
    leaveBringingIn();
    if (first === null) return;
    const partId: string = first;
    select(partId);
    whenComputed(() => {
      const box = useBench.getState().view?.parts.find((p) => p.id === partId)?.box;
      if (box && !isEmptyBox(box)) bringIntoSight(box);
    });
  } catch (reason) {
    const sentence =
      reason instanceof Error && reason.message !== 'Failed to fetch' ? reason.message : 'The server is away.';
    put({ keeping: false, fault: `${sentence} Nothing was changed; try again when it is back.` });
  }
}
