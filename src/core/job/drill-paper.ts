/** A paper to drill a wall by: a part's outlines and the places of its studs at true size, seen from the front. */
import type { Job } from '../document/schema';
import type { Drawing, Layer } from '../formats/drawing';
import { pdfWriter } from '../formats/pdf-write';
import { differenceFrom } from '../formats/read-back/compare';
import { type Drawable, dot, moveDrawable, polyline } from '../geometry/drawable';
import { boxHeight, boxWidth, EMPTY_BOX, growBox, type Point, translation, uniteBoxes } from '../geometry/point';
import { line } from '../geometry/segment';
import type { JobResult } from './evaluate';
import { drillPaperName } from './file-names';
import type { MadeFiles } from './files';

/** Paper left around the outlines, and how far a cross reaches beyond its hole, in mm. */
const MARGIN_MM = 15;
const CROSS_MM = 4;
/** The line to measure by, so that one sees whether it was printed at true size. */
const SCALE_MM = 100;
const TICK_MM = 3;
const LINE_MM = 0.2;

const lineOf = (x0: number, y0: number, x1: number, y1: number): Drawable =>
  polyline({ closed: false, segments: [line(x0, y0, x1, y1)] });

const crossAt = ({ x, y }: Point, reach: number): Drawable[] => [
  lineOf(x - reach, y, x + reach, y),
  lineOf(x, y - reach, x, y + reach),
];

/** The drill paper of a part as a PDF; none, and why, where it has no studs or is not what was drawn when read back. */
export function drillPaper(job: Job, result: JobResult, partId: string): MadeFiles {
  const part = result.parts.find((p) => p.id === partId);
  const studs = part?.linework.studs;
  if (!part || !studs || studs.at.length === 0)
    return { files: [], refused: ['There is no stud to drill for: switch studs on, and leave them room.'] };
  const outlines = part.outlines.map(({ path, box }): Drawable => ({ kind: 'outline', path, box }));
  const box = growBox(
    uniteBoxes(
      outlines.reduce((all, o) => uniteBoxes(all, o.box), EMPTY_BOX),
      part.box,
    ),
    MARGIN_MM,
  );
  const [width, height] = [Math.max(boxWidth(box), SCALE_MM + 2 * MARGIN_MM), boxHeight(box) + MARGIN_MM];
  const onPaper = translation(-box.minX, MARGIN_MM - box.minY);
  const layer = (name: string, colour: string, kind: Layer['kind'], drawn: readonly Drawable[]): Layer => ({
    name,
    kind,
    colour,
    tolerance: 0.02,
    scan: null,
    pen: 1,
    drawn,
  });
  const moved = (drawn: readonly Drawable[]) => drawn.map((d) => moveDrawable(d, onPaper));
  const holes = studs.at.flatMap((at) => [dot(at, studs.width / 2), ...crossAt(at, studs.width / 2 + CROSS_MM)]);
  const ticks = Array.from({ length: SCALE_MM / 10 + 1 }, (_, i) => {
    const x = MARGIN_MM + 10 * i;
    return lineOf(x, MARGIN_MM, x, MARGIN_MM + (i % 5 === 0 ? 2 : 1) * TICK_MM);
  });
  const drawing: Drawing = {
    title: `${job.title}: drill paper`,
    width,
    height,
    layers: [
      layer('Outlines', '#5F6B72', 'score', moved(outlines)),
      layer('Drill here', '#1F2A30', 'mark', moved(holes)),
      layer('100 mm', '#1F2A30', 'mark', [lineOf(MARGIN_MM, MARGIN_MM, MARGIN_MM + SCALE_MM, MARGIN_MM), ...ticks]),
    ],
  };
  const settings = { ...job.export, lineWidth: LINE_MM };
  const bytes = pdfWriter.write(drawing, settings);
  const difference = differenceFrom(drawing, () => pdfWriter.readBack(bytes, settings), {
    keeps: pdfWriter.keeps,
    lineMm: LINE_MM,
  });
  return difference
    ? { files: [], refused: [`The drill paper is not given out: read back, the file ${difference}.`] }
    : { files: [{ name: drillPaperName(job, partId), bytes }], refused: [] };
}
