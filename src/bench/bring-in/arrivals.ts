/** What comes from outside the page: files dropped on the window, and what is on the clipboard, of ours or of other programs. */
import { useEffect } from 'react';
import { isTypeface } from '@/faces/bring-in';
import { useBringInFaces } from '@/faces/bring-in-faces';
import { isTaken } from '@/taken/open-taken';
import { useOpenTaken } from '@/taken/use-taken';
import { copiedWords, copyChosen, cutChosen, pasteCopied, pasteText } from '../clipboard';
import { say } from '../store';
import { bringIn, bringInFiles } from './bring-in';

/** Marks a clipboard that holds parts of ours; what was copied elsewhere since then has no such mark. */
const MARK = 'application/x-needlefile';

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName));

/** Whether the clipboard is meant for something else: a field, words that are marked, a dialog. */
const isElsewhere = (event: ClipboardEvent): boolean =>
  isTyping(event.target) || document.querySelector('[aria-modal="true"]') !== null;

/** Whether pasted words look like a drawing. */
const isDrawing = (text: string): boolean =>
  /<svg[\s>]/i.test(text) ||
  /^\s*0\s*\r?\n\s*SECTION/.test(text) ||
  /^\s*IN;\s*(?:[A-Z]{2}[\d\s.,-]*;\s*)*P[UDA]/.test(text);

type TakeFaces = ReturnType<typeof useBringInFaces>;
type OpenTaken = ReturnType<typeof useOpenTaken>['open'];

/** Jobs taken along are opened, typefaces go into the list; everything else is looked at. */
async function takeFiles(dropped: readonly File[], takeFaces: TakeFaces, openTaken: OpenTaken): Promise<void> {
  const areTaken = await Promise.all(dropped.map(isTaken));
  const taken = dropped.filter((_, i) => areTaken[i]);
  if (taken.length > 0) await openTaken(taken);
  const files = dropped.filter((_, i) => !areTaken[i]);
  const areFaces = await Promise.all(files.map(isTypeface));
  const others = files.filter((_, i) => !areFaces[i]);
  const faces = files.filter((_, i) => areFaces[i]);
  if (others.length > 0) void bringInFiles(others);
  if (faces.length > 0) await takeFaces(faces);
}

const dropBy = (takeFaces: TakeFaces, openTaken: OpenTaken) => (event: DragEvent) => {
  const files = [...(event.dataTransfer?.files ?? [])];
  if (files.length === 0) return;
  event.preventDefault();
  void takeFiles(files, takeFaces, openTaken);
};

const dragOver = (event: DragEvent) => {
  if (event.dataTransfer?.types.includes('Files')) event.preventDefault();
};

/** Copying and cutting what is chosen, which other programs get the words of. */
const copyBy = (take: () => boolean) => (event: ClipboardEvent) => {
  const isMarked = (window.getSelection()?.toString() ?? '') !== '';
  if (isElsewhere(event) || isMarked || !take()) return;
  event.preventDefault();
  event.clipboardData?.setData(MARK, '1');
  event.clipboardData?.setData('text/plain', copiedWords());
};

const paste = (event: ClipboardEvent) => {
  if (isElsewhere(event)) return;
  event.preventDefault();
  const data = event.clipboardData;
  const files = [...(data?.files ?? [])];
  const text = data?.getData('text/plain') ?? '';
  if (data?.types.includes(MARK)) pasteCopied();
  else if (files.length > 0) void bringInFiles(files);
  else if (isDrawing(text)) void bringIn('Pasted drawing', new TextEncoder().encode(text));
  else if (text.trim() !== '') pasteText(text);
  else pasteCopied();
};

const copy = copyBy(copyChosen);
const cut = copyBy(cutChosen);

/** Listens for files that are dropped on the page, and for the clipboard. */
export function useArrivals(): void {
  const takeFaces = useBringInFaces();
  const { said, open } = useOpenTaken(say);
  useEffect(() => {
    if (said !== null) say(said);
  }, [said]);
  useEffect(() => {
    const drop = dropBy(takeFaces, open);
    const listened = Object.entries({ dragover: dragOver, drop, copy, cut, paste }) as [string, EventListener][];
    for (const [name, listener] of listened) window.addEventListener(name, listener);
    return () => {
      for (const [name, listener] of listened) window.removeEventListener(name, listener);
    };
  }, [takeFaces, open]);
}
