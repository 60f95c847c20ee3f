/** A band drawn over empty sheet: the parts it touches are chosen. */
import type { PointerEvent } from 'react';
import { create } from 'zustand';
import { type Box, boxesMeet, isEmptyBox, type Point } from '@/core/geometry/point';
import { selectedParts, selectParts, useBench } from '../store';
import type { Camera } from './camera';
import { followPointer } from './drag';
import styles from './sheet.module.css';

/** The band just now, in mm on the sheet. */
const useBand = create<{ readonly box: Box | null }>(() => ({ box: null }));

/** The parts that a band over the sheet touches, neither hidden nor locked, in their order. */
export function partsIn(box: Box): string[] {
  const { job, view } = useBench.getState();
  return job.parts.flatMap((part) => {
    const seen = view?.parts.find((p) => p.id === part.id);
    return seen && !part.locked && !isEmptyBox(seen.size) && boxesMeet(seen.size, box) ? [part.id] : [];
  });
}

/** Follow the pointer from a press on empty sheet; with Shift what the band touches is added to what is chosen. */
export function drawBand(event: PointerEvent, toMm: (clientX: number, clientY: number) => Point): void {
  const from = toMm(event.clientX, event.clientY);
  const before = event.shiftKey ? selectedParts(useBench.getState().selection) : [];
  followPointer(
    event,
    (e) => {
      const to = toMm(e.clientX, e.clientY);
      useBand.setState({
        box: {
          minX: Math.min(from.x, to.x),
          minY: Math.min(from.y, to.y),
          maxX: Math.max(from.x, to.x),
          maxY: Math.max(from.y, to.y),
        },
      });
    },
    (begun) => {
      const { box } = useBand.getState();
      useBand.setState({ box: null });
      if (begun && box) selectParts([...new Set([...before, ...partsIn(box)])]);
    },
  );
}

/** The rubber band with which parts are chosen. */
export function Band({ camera: { k, x, y } }: { camera: Camera }) {
  const box = useBand((s) => s.box);
  if (!box) return null;
  return (
    <rect
      data-band
      className={styles.band}
      x={x + box.minX * k}
      y={y - box.maxY * k}
      width={(box.maxX - box.minX) * k}
      height={(box.maxY - box.minY) * k}
    />
  );
}
