/**
 * From the numbers of a plotter file to millimetres: steps of the plotter, or units of the file’s own that are laid between two
 * points of the paper (IP, SC), turned by quarters (RO). As in the published HP-GL/2 reference.
 */
import { compose, type Matrix, rotation, scaling, translation } from '../../geometry/point';

/** Millimetres of a step of the plotter. */
export const MM_PER_STEP = 0.025;

/** Two points of the paper that units are laid between, in steps; where a file names none, those of an A4 plotter. */
const A4 = [250, 596, 10_250, 7_796] as const;

/** What a file has said so far of its units. */
export class PlotterScale {
  private p1p2: readonly number[] = A4;
  private units: readonly number[] | null = null;
  /** Degrees, a multiple of 90. */
  turn = 0;
  private arePointsNamed = false;
  /** From the file’s numbers to mm. */
  matrix: Matrix = scaling(MM_PER_STEP);
  /** Whether its size hangs on where some plotter has its points: it has units of its own and names no points for them. */
  isGuessed = false;

  /** IN: everything as it is at first. */
  reset(): void {
    this.p1p2 = A4;
    this.arePointsNamed = false;
    this.units = null;
    this.turn = 0;
    this.renew();
  }

  /** IP: the points; the second goes along where only the first is named. */
  points(numbers: readonly number[]): void {
    const [x1, y1, x2, y2] = numbers;
    const [a, b, c, d] = this.p1p2 as [number, number, number, number];
    if (x1 === undefined || y1 === undefined) this.p1p2 = A4;
    else if (x2 === undefined || y2 === undefined) this.p1p2 = [x1, y1, x1 + c - a, y1 + d - b];
    else this.p1p2 = [x1, y1, x2, y2];
    this.arePointsNamed = x1 !== undefined;
    this.renew();
  }

  /** PS: the paper, whose corners are the points where no others are named. */
  paper(numbers: readonly number[]): void {
    const [length, width] = numbers;
    if (this.arePointsNamed || !length || length < 0) return;
    this.p1p2 = [0, 0, length, width && width > 0 ? width : length];
    this.arePointsNamed = true;
    this.renew();
  }

  /** SC: units of the file’s own; without numbers, steps again. */
  scale(numbers: readonly number[]): void {
    this.units = numbers.length >= 4 && numbers[0] !== numbers[1] && numbers[2] !== numbers[3] ? numbers : null;
    this.renew();
  }

  /** RO: turned by so many degrees, of which only quarters are known. */
  rotate(degrees: number): void {
    this.turn = Number.isFinite(degrees) ? (((Math.round(degrees / 90) * 90) % 360) + 360) % 360 : 0;
    this.renew();
  }

  private renew(): void {
    this.isGuessed ||= this.units !== null && this.units[4] !== 2 && !this.arePointsNamed;
    this.matrix = compose(compose(this.toSteps(), rotation(this.turn)), scaling(MM_PER_STEP));
  }

  private toSteps(): Matrix {
    if (!this.units) return scaling(1);
    const [p, q, r, s] = this.p1p2 as [number, number, number, number];
    const [xMin, second, yMin, fourth, kind = 0, left = 50, bottom = 50] = this.units as [
      number,
      number,
      number,
      number,
      number?,
      number?,
      number?,
    ];
    // The third kind gives steps for each unit; the others the numbers at the second point.
    if (kind === 2) return compose(scaling(second, fourth), translation(p - xMin * second, q - yMin * fourth));
    const [sx, sy] = [(r - p) / (second - xMin), (s - q) / (fourth - yMin)];
    if (kind !== 1) return compose(scaling(sx, sy), translation(p - xMin * sx, q - yMin * sy));
    // The same for both directions: as large as fits, what is left over divided as the file says.
    const k = Math.min(Math.abs(sx), Math.abs(sy));
    const [kx, ky] = [k * Math.sign(sx), k * Math.sign(sy)];
    const dx = ((r - p - kx * (second - xMin)) * left) / 100;
    const dy = ((s - q - ky * (fourth - yMin)) * bottom) / 100;
    return compose(scaling(kx, ky), translation(p + dx - xMin * kx, q + dy - yMin * ky));
  }

  /** From the first point to the second, in mm. */
  get acrossMm(): { readonly x: number; readonly y: number } {
    const [p, q, r, s] = this.p1p2 as [number, number, number, number];
    return { x: (r - p) * MM_PER_STEP, y: (s - q) * MM_PER_STEP };
  }
}
