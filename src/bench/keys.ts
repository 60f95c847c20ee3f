/** The bench's keys. */

import { type Options, useHotkeys } from 'react-hotkeys-hook';
import { nudgeLetters } from '@/core/commands/letters';
import { removeMember, removeParts } from '@/core/commands/parts';
import { partsOnSheet } from '@/core/document/on-sheet';
import { STATIONS, stationOf } from '@/core/inspect/stations';
import { nudgeChosenBridge, removeChosenBridge } from './bridge-edits';
import { chosenNow, moveBy } from './chosen';
import { duplicateChosen } from './clipboard';
import { nudgeChosenCut, removeChosenCut } from './cut-edits';
import { removeChosenDot } from './dot-edits';
import { goInside, goToWords } from './inside';
import { chooseNext, deleteNodes, nudgeNodes } from './nodes/tools';
import { nudgePicture, removeChosenPicture } from './picture-edits';
import { playOrHold, stepOperation } from './proof/proving';
import { memberView } from './seen';
import { fitChosen, fitSheet, useCamera, zoomBy } from './sheet/camera';
import type { Look } from './state';
import {
  chooseCut,
  chooseDot,
  chooseIsland,
  choosePicture,
  dispatch,
  goToStation,
  pick,
  redo,
  select,
  selectAll,
  selectedParts,
  setLook,
  setPointing,
  undo,
  useBench,
  workOnNodes,
} from './store';

/** The grid step that arrows nudge by, in mm. */
const stepMm = (): number => (useBench.getState().job.units === 'mm' ? 1 : 25.4 / 16);

const typing = (): boolean => {
  const at = document.activeElement;
  return (
    at instanceof HTMLElement &&
    (at.matches('input:not([type=radio], [type=checkbox]), textarea, select') || at.isContentEditable)
  );
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
  if (nudgePicture(dx, dy)) return;
  if (nudgeNodes(dx, dy)) return;
  if (nudgeChosenBridge(dx, dy)) return;
  if (nudgeChosenCut(dx, dy)) return;
  const { partId, memberId } = selection;
  const seen = memberView(partId, memberId);
  if (picked && partId && memberId && seen)
    dispatch((job) => nudgeLetters(job, partId, { memberId, picked, dx, dy, seen }), 'nudge');
  else moveBy(chosenNow(), dx, dy, 'nudge');
}

/** Choose the next part, or the one before; false after the last and before the first, where the key goes on to what is beside the sheet. */
function nextPart(way: 1 | -1): boolean {
  const { job, selection } = useBench.getState();
  const parts = partsOnSheet(job);
  const at = parts.findIndex((p) => p.id === selection.partId);
  const next = parts[at + way];
  if (!next || (at < 0 && way < 0)) return false;
  select(next.id);
  return true;
}

function removeSelected(): void {
  const { selection } = useBench.getState();
  const { partId, memberId } = selection;
  if (!partId || isLocked(partId)) return;
  const all = selectedParts(selection).filter((id) => !isLocked(id));
  dispatch((job) => (memberId && all.length === 1 ? removeMember(job, partId, memberId) : removeParts(job, all)));
}

/** The look that was chosen before the key for the finished work was held down. */
let lookBefore: Look | null = null;

function flip(down: boolean): void {
  const { look, station } = useBench.getState();
  const { finished } = stationOf(station);
  if (down && lookBefore === null) {
    lookBefore = look;
    setLook(look === finished ? 'drawing' : finished);
  } else if (!down && lookBefore !== null) {
    setLook(lookBefore);
    lookBefore = null;
  }
}

/** A key of the bench: none while a dialog is open, whose own keys are meant then. */
const useKey = (keys: string, press: (event: KeyboardEvent) => void, options: Options = {}) =>
  useHotkeys(keys, press, {
    ignoreEventWhen: () => document.querySelector('[aria-modal="true"]') !== null,
    ...options,
  });

/** Listens to the keys of the bench; `showHelp` opens the help. */
export function useBenchKeys(showHelp: () => void): void {
  useKey(STATIONS.map((_, i) => `${i + 1}`).join(), (e) => {
    const stop = STATIONS[Number(e.key) - 1];
    if (stop) goToStation(stop.id);
  });
  useKey('f', () => fitSheet());
  useKey('equal,shift+equal,plus,add', () => zoomBy(1.25));
  useKey('minus,subtract', () => zoomBy(0.8));
  useKey('left,right,up,down,shift+left,shift+right,shift+up,shift+down,alt+left,alt+right,alt+up,alt+down', (e) => {
    if (!useBench.getState().selection.partId && useBench.getState().atPicture === null) return;
    e.preventDefault();
    nudge(e.key.toLowerCase(), e.shiftKey ? 10 : e.altKey ? 0.1 : 1);
  });
  useKey('tab,shift+tab', (e) => {
    // Tab steps through parts only from the sheet, so that the keyboard still reaches every control.
    if (!document.activeElement?.closest('[data-sheet]')) return;
    const way = e.shiftKey ? -1 : 1;
    if (useBench.getState().atNodes) chooseNext(way);
    else if (!nextPart(way)) return;
    e.preventDefault();
  });
  useKey('enter', (e) => {
    if (document.activeElement?.matches('button, a, [role=button]')) return;
    e.preventDefault();
    goInside();
  });
  useKey(
    'esc',
    () => {
      if (typing()) return (document.activeElement as HTMLElement).blur();
      const { selection, only, picked, pointing } = useBench.getState();
      const { atNodes } = useBench.getState();
      if (atNodes) workOnNodes(atNodes.chosen.size > 0 ? { ...atNodes, chosen: new Set() } : null);
      else if (pointing) setPointing(null);
      else if (useBench.getState().atPicture !== null) choosePicture(null);
      else if (useBench.getState().atDot) chooseDot(null);
      else if (useBench.getState().atCut) chooseCut(null);
      else if (useBench.getState().atIsland) chooseIsland(null);
      else if (picked) pick(picked.length > 0 ? [] : null);
      else if (only) useBench.setState({ only: null });
      else if (selection.memberId) select(selection.partId);
      else select(null);
    },
    { enableOnFormTags: true },
  );
  useKey('delete,backspace', () => {
    if (useBench.getState().atNodes) deleteNodes();
    else if (!removeChosenPicture() && !removeChosenDot() && !removeChosenCut() && !removeChosenBridge())
      removeSelected();
  });
  useKey('t', (e) => {
    e.preventDefault();
    goToWords();
  });
  useKey('shift+f', () => fitChosen());
  useKey('mod+a', (e) => {
    e.preventDefault();
    selectAll();
  });
  useKey('d', () => duplicateChosen());
  useKey('e', () => goToStation('prove'));
  useKey('r', () => useBench.getState().station === 'prove' && playOrHold());
  useKey('bracketleft,bracketright', (e) => {
    if (useBench.getState().station === 'prove') stepOperation(e.code === 'BracketLeft' ? -1 : 1);
  });
  useKey(
    'space',
    (e) => {
      // A button that has the focus is pressed by it instead.
      if (document.activeElement?.matches('button, a, summary, [role=button]')) return;
      e.preventDefault();
      useCamera.setState({ panning: e.type === 'keydown' });
    },
    { keydown: true, keyup: true },
  );
  useKey('v', (e) => flip(e.type === 'keydown'), { keydown: true, keyup: true });
  useKey('shift+slash,?', () => showHelp(), { useKey: true });
  useKey(
    'mod+z',
    (e) => {
      e.preventDefault();
      undo();
    },
    { enableOnFormTags: true },
  );
  useKey(
    'mod+shift+z,mod+y',
    (e) => {
      e.preventDefault();
      redo();
    },
    { enableOnFormTags: true },
  );
}
