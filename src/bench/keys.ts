'use client';

/** The bench's keys. */
import { useHotkeys } from 'react-hotkeys-hook';
import { moveMember } from '@/core/job/place';
import { nudgeChosenBridge, removeChosenBridge } from './bridge-edits';
import { removeChosenDot } from './dot-edits';
import { duplicatePart, memberOf, moveWholePart, nudgeLetters, removeMember } from './edits';
import { focusWords } from './focus-words';
import { enterNodes } from './nodes/hand';
import { chooseNext, deleteNodes, nudgeNodes } from './nodes/tools';
import { fitSheet, zoomBy } from './sheet/camera';
import { STATIONS } from './stations/list';
import {
  change,
  chooseDot,
  chooseIsland,
  goToStation,
  type Look,
  pick,
  pointAt,
  redo,
  select,
  selectedParts,
  setLook,
  undo,
  useBench,
  workOnNodes,
} from './store';

/** The grid step that arrows nudge by, in mm. */
const stepMm = (): number => (useBench.getState().job.units === 'mm' ? 1 : 25.4 / 16);

const typing = (): boolean => {
  const at = document.activeElement;
  return at instanceof HTMLElement && (at.matches('input, textarea, select') || at.isContentEditable);
};

const isLocked = (partId: string | null): boolean =>
  useBench.getState().job.parts.find((p) => p.id === partId)?.locked === true;

function nudge(key: string, factor: number): void {
  const { selection } = useBench.getState();
  if (isLocked(selection.partId)) return;
  const by = stepMm() * factor;
  const { picked } = useBench.getState();
  const ways: Readonly<Record<string, readonly [number, number]>> = {
    arrowleft: [-1, 0],
    arrowright: [1, 0],
    arrowup: [0, 1],
    arrowdown: [0, -1],
  };
  const [dx, dy] = (ways[key] ?? [0, 0]).map((way) => way * by) as [number, number];
  if (nudgeNodes(dx, dy)) return;
  if (nudgeChosenBridge(dx, dy)) return;
  change((job) => {
    const member = memberOf(job, selection.partId, selection.memberId);
    if (picked && member?.kind === 'lettering') return nudgeLetters(member, picked, dx, dy, useBench.getState().view);
    if (member && selection.others.length === 0) return moveMember(member, dx, dy);
    for (const id of selectedParts(selection)) moveWholePart(job, id, dx, dy);
  }, 'nudge');
}

function nextPart(way: 1 | -1): void {
  const { job, selection } = useBench.getState();
  if (job.parts.length === 0) return;
  const at = job.parts.findIndex((p) => p.id === selection.partId);
  const next = job.parts[(at + way + job.parts.length) % job.parts.length] ?? job.parts[0];
  if (next) select(next.id, next.members[0]?.id ?? null);
}

function removeSelected(): void {
  const { selection } = useBench.getState();
  const { partId, memberId } = selection;
  if (!partId || isLocked(partId)) return;
  const all = selectedParts(selection).filter((id) => !isLocked(id));
  change((job) => {
    if (memberId && all.length === 1) removeMember(job, partId, memberId);
    else job.parts = job.parts.filter((p) => !all.includes(p.id));
  });
}

export function duplicateSelected(): void {
  const { partId } = useBench.getState().selection;
  if (!partId) return;
  let copy: string | null = null;
  change((job) => {
    copy = duplicatePart(job, partId);
  });
  if (copy) select(copy, useBench.getState().job.parts.find((p) => p.id === copy)?.members[0]?.id ?? null);
}

/** The look that was chosen before the key for the finished work was held down. */
let lookBefore: Look | null = null;

function flip(down: boolean): void {
  const { look, station } = useBench.getState();
  // At station Fill the finished work is what the lines leave, elsewhere what the cut leaves.
  const finished = station === 'fill' ? 'worked' : 'cut';
  if (down && lookBefore === null) {
    lookBefore = look;
    setLook(look === finished ? 'drawing' : finished);
  } else if (!down && lookBefore !== null) {
    setLook(lookBefore);
    lookBefore = null;
  }
}

export function useBenchKeys(showKeys: () => void): void {
  useHotkeys('1,2,3,4,5,6', (e) => {
    const stop = STATIONS[Number(e.key) - 1];
    if (stop) goToStation(stop.id);
  });
  useHotkeys('f', () => fitSheet());
  useHotkeys('equal,shift+equal,plus,add', () => zoomBy(1.25));
  useHotkeys('minus,subtract', () => zoomBy(0.8));
  useHotkeys(
    'left,right,up,down,shift+left,shift+right,shift+up,shift+down,alt+left,alt+right,alt+up,alt+down',
    (e) => {
      if (!useBench.getState().selection.partId) return;
      e.preventDefault();
      nudge(e.key.toLowerCase(), e.shiftKey ? 10 : e.altKey ? 0.1 : 1);
    },
  );
  useHotkeys('tab,shift+tab', (e) => {
    // Tab steps through parts only from the sheet, so that the keyboard still reaches every control.
    if (!document.activeElement?.closest('[data-sheet]')) return;
    e.preventDefault();
    if (useBench.getState().atNodes) chooseNext(e.shiftKey ? -1 : 1);
    else nextPart(e.shiftKey ? -1 : 1);
  });
  useHotkeys('enter', (e) => {
    if (document.activeElement?.matches('button, a, [role=button]')) return;
    e.preventDefault();
    const { job, selection } = useBench.getState();
    const member = memberOf(job, selection.partId, selection.memberId);
    if (!selection.partId || !member || member.kind === 'lettering') return focusWords();
    goToStation('close');
    void enterNodes(selection.partId, selection.memberId);
  });
  useHotkeys(
    'esc',
    () => {
      if (typing()) return (document.activeElement as HTMLElement).blur();
      const { selection, only, picked, pointing } = useBench.getState();
      const { atNodes } = useBench.getState();
      if (atNodes) workOnNodes(atNodes.chosen.size > 0 ? { ...atNodes, chosen: new Set() } : null);
      else if (pointing) pointAt(null);
      else if (useBench.getState().atDot) chooseDot(null);
      else if (useBench.getState().atIsland) chooseIsland(null);
      else if (picked) pick(picked.length > 0 ? [] : null);
      else if (only) useBench.setState({ only: null });
      else if (selection.memberId) select(selection.partId);
      else select(null);
    },
    { enableOnFormTags: true },
  );
  useHotkeys('delete,backspace', () => {
    if (useBench.getState().atNodes) deleteNodes();
    else if (!removeChosenDot() && !removeChosenBridge()) removeSelected();
  });
  useHotkeys('d', () => duplicateSelected());
  useHotkeys('e', () => goToStation('prove'));
  useHotkeys('v', (e) => flip(e.type === 'keydown'), { keydown: true, keyup: true });
  useHotkeys('shift+slash,?', () => showKeys(), { useKey: true });
  useHotkeys(
    'mod+z',
    (e) => {
      e.preventDefault();
      undo();
    },
    { enableOnFormTags: true },
  );
  useHotkeys(
    'mod+shift+z,mod+y',
    (e) => {
      e.preventDefault();
      redo();
    },
    { enableOnFormTags: true },
  );
}
