/**
 * Reading HPGL and HP-GL/2, the languages of pen plotters: what each pen draws, with arcs as arcs; filled polygons as fills; labels as
 * words to be set. Commands as in the published HP-GL/2 reference.
 */
import { closedPath, joinedExactly, type Path } from '../../geometry/path';
import { applyMatrix, distance, invert, type Point } from '../../geometry/point';
import { cubic, line, type Segment, transformSegments } from '../../geometry/segment';
import { LIMITS } from '../../limits';
import { Finder, type Reading, ReadingStops, type ReadProgress } from '../read-drawing';
import { type PlotterCommand, plotterCommands } from './commands';
import { encodedMoves } from './encoded';
import { SILENT_COMMANDS, UNREAD_COMMANDS } from './known';
import { LabelWriter } from './labels';
import { dashesOf } from './line-types';
import { arcsAbout, arcsThrough, asPath, circleOutline, rectangleOutline, wedgeOutline } from './outlines';
import { MM_PER_STEP, PlotterScale } from './scale';

/** Colours by which pens are told apart on the screen; the file names none. */
const PEN_COLOURS = ['#000000', '#b3261e', '#2f7d4f', '#1b6ca8', '#8a4f10', '#7b3f98', '#0f766e', '#6b6b6b'] as const;
const HAIRLINE = { widthMm: 0.1, cap: 'round', join: 'round', miter: 4, dashOffsetMm: 0 } as const;
/** Progress is told every so many commands. */
const COMMANDS_TOLD = 20_000;

/**
 * Reads a plotter file. Never throws for what is in it; `progress` hears shares from 0 to 1.
 */
export function readHpgl(text: string, progress: ReadProgress = () => {}): Reading {
  const reader = new HpglReader();
  try {
    reader.read(text, progress);
  } catch (stop) {
    if (!(stop instanceof ReadingStops)) throw stop;
    reader.finder.breaksOff(stop.message);
  }
  progress(1);
  return { ok: true, found: reader.found() };
}

/** A polygon that is being told, or was told last: outlines, of which some are only to be filled. */
type Polygon = { readonly paths: Path[]; readonly back: { readonly at: Point; readonly isDown: boolean } };

class HpglReader {
  readonly finder = new Finder();
  private readonly scale = new PlotterScale();
  private lettering = new LabelWriter();
  /** Where the pen is, in mm. */
  private at: Point = { x: 0, y: 0 };
  private isDown = false;
  private isAbsolute = true;
  /** 0 is none. Files that never take one draw with the first. */
  private pen = 1;
  private sheet = 1;
  private isSheetUsed = false;
  private dashesMm: readonly number[] = [];
  /** What is drawn since the pen was set down. */
  private drawn: Segment[] = [];
  /** A pen set down that has not moved. */
  private isSetDown = false;
  private clips: readonly number[] = [];
  private polygon: Polygon = { paths: [], back: { at: this.at, isDown: false } };
  /** Whether a polygon is being told. */
  private isInPolygon = false;
  private corners: Segment[] = [];
  private strange = 0;
  /** Words that are kept to be written later. */
  private buffered = '';
  /** Where the line of words begins, in mm. */
  private margin: Point = this.at;
  /** Whether a symbol stands at every place the pen is drawn to. */
  private areSymbols = false;

  read(text: string, progress: ReadProgress): void {
    let count = 0;
    const commands = plotterCommands(text, (more) => {
      this.strange += more;
    });
    for (const command of commands) {
      if (++count % COMMANDS_TOLD === 0) progress(command.end / text.length);
      this.take(command);
    }
    this.lift();
  }

  found() {
    const { finder } = this;
    if (this.strange > 0) finder.unread('signs that are no commands', this.strange);
    if (this.scale.isGuessed)
      finder.note('This file leaves its size to the plotter it was made for; A4 paper was assumed. Check its size.');
    if (this.sheet > 1 && this.isSheetUsed)
      finder.note(
        `This file is drawn on ${this.sheet} sheets of paper. They lie on each other; leave out those that are not wanted.`,
      );
    const stated = !this.scale.isGuessed;
    const unit = 'plotter steps of 0.025 mm';
    return finder.found('HPGL', { unit, mmPerUnit: MM_PER_STEP, stated, measure: 'steps' }, null);
  }

  private take({ name, numbers, text }: PlotterCommand): void {
    const [x = 0, y = 0] = numbers;
    switch (name) {
      case 'IN':
      case 'DF':
        this.start(name === 'IN');
        return;
      case 'SP':
        this.finish();
        this.pen = numbers.length === 0 ? 0 : Math.max(0, Math.min(LIMITS.pens, Math.floor(Math.abs(x))));
        return;
      case 'PU':
      case 'PD':
        if (name === 'PU') this.lift();
        else this.setDown();
        this.moves(numbers);
        return;
      case 'PA':
      case 'PR':
        this.isAbsolute = name === 'PA';
        this.moves(numbers);
        return;
      case 'AA':
      case 'AR': {
        const centre = name === 'AA' ? { x, y } : this.beside(x, y);
        if (numbers.length >= 3) this.arc(centre, numbers[2] as number);
        return;
      }
      case 'AT':
      case 'RT':
        for (let i = 0; i + 3 < numbers.length; i += 4) {
          const [through, end] = [0, 2].map((k) => this.place(name === 'AT', numbers, i + k)) as [Point, Point];
          this.goAlong(arcsThrough(this.own(), through, end), end);
        }
        return;
      case 'BZ':
      case 'BR':
        for (let i = 0; i + 5 < numbers.length; i += 6) {
          const [a, b, end] = [0, 2, 4].map((k) => this.place(name === 'BZ', numbers, i + k)) as [Point, Point, Point];
          const from = this.own();
          this.goAlong([cubic(from.x, from.y, a.x, a.y, b.x, b.y, end.x, end.y)], end);
        }
        return;
      case 'CI':
        if (numbers.length > 0) this.circle(Math.abs(x));
        return;
      case 'EA':
      case 'ER':
      case 'RA':
      case 'RR':
        if (numbers.length >= 2) this.rectangle(name[1] === 'A' ? { x, y } : this.beside(x, y), name[0] === 'R');
        return;
      case 'EW':
      case 'WG':
        if (numbers.length >= 3) this.wedge(x, y, numbers[2] as number, name === 'WG');
        return;
      case 'PM':
        this.tellPolygon(numbers[0] ?? 0);
        return;
      case 'EP':
        this.shape(this.polygon.paths, null);
        return;
      case 'FP':
        this.shape(this.polygon.paths, numbers[0] === 1 ? 'nonzero' : 'evenodd');
        return;
      case 'PE':
        this.encoded(text);
        return;
      case 'LB':
        this.label(text);
        return;
      case 'BL':
        this.buffered = text;
        return;
      case 'PB':
        this.label(this.buffered);
        return;
      case 'CP':
        this.lift();
        this.at = this.lettering.moved(numbers.length < 2 ? null : { x, y }, this.at, this.margin, this.turn());
        return;
      case 'SM':
        this.areSymbols = /[\x21-\x7e]/.test(text);
        return;
      case 'SI':
        this.lettering.sizeCm(numbers);
        return;
      case 'SR':
        this.lettering.sizeShare(numbers, this.scale.acrossMm);
        return;
      case 'DI':
        this.lettering.direction(numbers[0] ?? 1, numbers[1] ?? 0);
        return;
      case 'DR':
        this.lettering.direction((numbers[0] ?? 1) * this.scale.acrossMm.x, (numbers[1] ?? 0) * this.scale.acrossMm.y);
        return;
      case 'LO':
        this.lettering.place(numbers[0] ?? 1);
        return;
      case 'LT':
        this.finish();
        this.dashesMm = dashesOf(numbers, this.scale.acrossMm);
        return;
      case 'IP':
        this.scale.points(numbers);
        return;
      case 'SC':
        this.scale.scale(numbers);
        return;
      case 'RO':
        this.scale.rotate(x);
        return;
      case 'IW':
        this.finish();
        this.window(numbers);
        return;
      case 'PS':
        this.scale.paper(numbers);
        return;
      case 'PG':
      case 'AF':
      case 'AH':
        this.turnSheet();
        return;
      default: {
        const kind = UNREAD_COMMANDS[name];
        if (kind) this.finder.unread(kind);
        else if (!SILENT_COMMANDS.has(name)) this.finder.unread(`commands called “${name}”`);
      }
    }
  }

  private start(isWhole: boolean): void {
    this.lift();
    this.isAbsolute = true;
    this.clips = [];
    this.dashesMm = [];
    this.lettering = new LabelWriter();
    if (!isWhole) return;
    this.scale.reset();
    this.at = { x: 0, y: 0 };
  }

  /** Where the pen is, in the file’s own numbers. */
  private own(): Point {
    return applyMatrix(invert(this.scale.matrix), this.at);
  }

  private beside(dx: number, dy: number): Point {
    const { x, y } = this.own();
    return { x: x + dx, y: y + dy };
  }

  private place(isAbsolute: boolean, numbers: readonly number[], i: number): Point {
    const [x, y] = [numbers[i] ?? 0, numbers[i + 1] ?? 0];
    return isAbsolute ? { x, y } : this.beside(x, y);
  }

  private moves(numbers: readonly number[]): void {
    for (let i = 0; i + 1 < numbers.length; i += 2) this.goTo(this.place(this.isAbsolute, numbers, i));
  }

  private goTo(to: Point): void {
    const from = this.own();
    this.goAlong([line(from.x, from.y, to.x, to.y)], to);
  }

  /** Along segments in the file’s own numbers, drawing where the pen is down. */
  private goAlong(segments: readonly Segment[], to: Point): void {
    const end = applyMatrix(this.scale.matrix, to);
    if (this.isInPolygon) this.corner(transformSegments(segments, this.scale.matrix));
    else if (this.isDown) {
      if (distance(this.at, end) > 0 || segments.some((s) => s.kind !== 'line'))
        this.drawn.push(...transformSegments(segments, this.scale.matrix));
      if (this.drawn.length >= LIMITS.drawnSegments) this.finish();
    }
    this.at = end;
    this.margin = end;
    if (this.areSymbols && !this.isInPolygon) this.finder.unread('symbols at the places of a line');
  }

  /** A piece of the polygon that is being told, which may never be drawn: no more are kept than could be. */
  private corner(segments: readonly Segment[]): void {
    this.corners.push(...segments);
    if (this.corners.length > LIMITS.drawnSegments)
      throw new ReadingStops('A polygon of this file has no end; it and what comes after it were left out.');
  }

  private setDown(): void {
    if (!this.isDown) this.isSetDown = true;
    this.isDown = true;
  }

  /** What was drawn since the pen was set down is one line. The pen stays as it is, for what goes on with another. */
  private finish(): void {
    if (this.drawn.length > 0) this.shape([asPath(this.drawn)], null);
    else if (this.isSetDown && !this.isInPolygon && this.pen > 0)
      this.finder.point(this.at, { name: this.penName(), colour: penColour(this.pen), pen: this.pen });
    this.drawn = [];
    this.isSetDown = false;
  }

  private lift(): void {
    this.finish();
    this.isDown = false;
  }

  /** An arc about a place, in degrees, counter-clockwise positive, both in the file’s own numbers. */
  private arc(centre: Point, degrees: number): void {
    const from = this.own();
    const arcs = arcsAbout(centre, from, degrees);
    const last = arcs.at(-1);
    if (last) this.goAlong(arcs, Math.abs(degrees) >= 360 ? from : { x: last.x1, y: last.y1 });
  }

  /** A circle about where the pen is; it is there again afterwards. */
  private circle(radius: number): void {
    if (radius > 0) this.whole(circleOutline(this.own(), radius), null);
  }

  private rectangle(to: Point, isFilled: boolean): void {
    this.whole(rectangleOutline(this.own(), to), isFilled ? 'evenodd' : null);
  }

  /** A slice of a circle about where the pen is; degrees, from the other side where the radius is negative. */
  private wedge(reach: number, start: number, sweep: number, isFilled: boolean): void {
    const outline = wedgeOutline(this.own(), reach, { start, sweep });
    if (outline) this.whole(outline, isFilled ? 'evenodd' : null);
  }

  /** A closed outline that is drawn by itself, or belongs to a polygon that is being told. */
  private whole(segments: readonly Segment[], rule: 'evenodd' | null): void {
    const path = joinedExactly(closedPath(transformSegments(segments, this.scale.matrix)));
    if (this.isInPolygon) this.polygon.paths.push(path);
    else {
      this.finish();
      this.shape([path], rule);
    }
  }

  /** PM: 0 begins a polygon, 1 ends an outline of it, 2 ends the last. */
  private tellPolygon(what: number): void {
    if (what === 0) {
      this.finish();
      this.polygon = { paths: [], back: { at: this.at, isDown: this.isDown } };
      this.isInPolygon = true;
      this.corners = [];
      return;
    }
    if (!this.isInPolygon) return;
    if (this.corners.length > 0) {
      const path = asPath(this.corners);
      const [first, last] = [path.segments[0], path.segments.at(-1)] as [Segment, Segment];
      this.polygon.paths.push(
        path.closed ? path : closedPath([...path.segments, line(last.x1, last.y1, first.x0, first.y0)]),
      );
    }
    this.corners = [];
    if (what !== 2) return;
    this.isInPolygon = false;
    this.at = this.polygon.back.at;
    this.isDown = this.polygon.back.isDown;
    this.isSetDown = false;
  }

  private encoded(text: string): void {
    const wasDown = this.isDown;
    const isOwn = this.isAbsolute;
    for (const move of encodedMoves(text)) {
      if (move.kind === 'pen') {
        this.finish();
        this.pen = Math.max(0, Math.min(LIMITS.pens, Math.floor(Math.abs(move.pen))));
        continue;
      }
      if (move.isDrawn) this.setDown();
      else this.lift();
      this.isAbsolute = move.isAbsolute;
      this.moves([move.x, move.y]);
    }
    this.isAbsolute = isOwn;
    if (!wasDown) this.lift();
  }

  private label(text: string): void {
    this.finish();
    if (text.length > LIMITS.drawnWords) {
      this.finder.unread('words that are too long');
      return;
    }
    const { lines, end } = this.lettering.write(text, this.at, this.turn());
    if (this.pen > 0) for (const words of lines) this.finder.text({ ...words, group: this.group(true) });
    this.at = end;
    if (lines.length > 0) this.isSheetUsed = true;
  }

  /** By how much words are turned with the drawing, in radians. */
  private turn(): number {
    return (this.scale.turn * Math.PI) / 180;
  }

  /** IW: what lies outside is not drawn; without numbers all is again. */
  private window(numbers: readonly number[]): void {
    this.clips = [];
    const [x0, y0, x1, y1] = numbers;
    if (x0 === undefined || y0 === undefined || x1 === undefined || y1 === undefined) return;
    const paths = this.finder.sound([
      closedPath(transformSegments(rectangleOutline({ x: x0, y: y0 }, { x: x1, y: y1 }), this.scale.matrix)),
    ]);
    this.clips = [this.finder.clips.length];
    this.finder.clips.push([{ paths, rule: 'nonzero', clips: [] }]);
  }

  /** What follows is drawn on a sheet of paper of its own. */
  private turnSheet(): void {
    this.lift();
    if (!this.isSheetUsed) return;
    this.sheet++;
    this.isSheetUsed = false;
  }

  private penName(): string {
    return `Pen ${this.pen}${this.sheet > 1 ? `, sheet ${this.sheet}` : ''}`;
  }

  private group(isFilled: boolean): number {
    return this.finder.groupOf(this.penName(), penColour(this.pen), isFilled, this.pen);
  }

  private shape(paths: readonly Path[], rule: 'nonzero' | 'evenodd' | null): void {
    if (paths.length === 0) return;
    if (this.pen === 0) {
      this.finder.unread('lines drawn without a pen', paths.length);
      return;
    }
    const colour = penColour(this.pen);
    this.isSheetUsed = true;
    this.finder.shape({
      paths,
      group: this.group(rule !== null),
      fill: rule && { colour, rule },
      stroke: rule ? null : { ...HAIRLINE, dashesMm: this.dashesMm, colour },
      clips: this.clips,
    });
  }
}

const penColour = (pen: number): string => PEN_COLOURS[(pen - 1) % PEN_COLOURS.length] ?? '#000000';
