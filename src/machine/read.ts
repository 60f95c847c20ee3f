/** A file as a machine reads it: by the readers of whatever is brought in, its numbers in the unit the machine takes them for. */
import { openDrawing } from '../core/formats/read';
import { POINTS, type ReadDrawing } from '../core/formats/read-drawing';
import { transformPath } from '../core/geometry/path';
import { scaling } from '../core/geometry/point';
import type { Machine } from '../core/schema/shop/machine';

const INCH_MM = 25.4;

/** What a machine reads from a file, and how many pages it has; a sentence why it can't be read. Of several pages it reads the first. */
export async function readByMachine(
  bytes: Uint8Array,
  machine: Pick<Machine, 'file'> | null,
): Promise<{ readonly drawing: ReadDrawing; readonly pages: number } | { readonly sentence: string }> {
  const opened = await openDrawing(bytes);
  if (!opened.ok) return { sentence: opened.sentence };
  try {
    const reading = await opened.read(0, () => {});
    if (!reading.ok) return { sentence: reading.sentence };
    return { drawing: inItsUnit(withoutPoints(reading.found), machine), pages: opened.pages };
  } finally {
    await opened.close();
  }
}

/** A machine sets its tool down at points, which are no outlines to those who bring a file in. */
const withoutPoints = (found: ReadDrawing): ReadDrawing => ({
  ...found,
  unread: found.unread.flatMap(({ kind, count }) => {
    const left = kind === POINTS ? count - found.points.length : count;
    return left > 0 ? [{ kind, count: left }] : [];
  }),
});

/** A drawing whose file does not say what its units are, in those that the machine takes them for. */
function inItsUnit(found: ReadDrawing, machine: Pick<Machine, 'file'> | null): ReadDrawing {
  const { claim, shapes, clips, points } = found;
  if (machine?.file.unit !== 'in' || claim.stated || claim.measure !== 'units') return found;
  const matrix = scaling(INCH_MM);
  return {
    ...found,
    claim: { ...claim, unit: 'inches', mmPerUnit: INCH_MM, stated: true },
    shapes: shapes.map((s) => ({ ...s, paths: s.paths.map((p) => transformPath(p, matrix)) })),
    clips: clips.map((clip) => clip.map((c) => ({ ...c, paths: c.paths.map((p) => transformPath(p, matrix)) }))),
    points: points.map((p) => ({ ...p, at: { x: INCH_MM * p.at.x, y: INCH_MM * p.at.y } })),
  };
}
