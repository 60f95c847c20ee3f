/**
 * The neutral drawing that every reader gives, whatever the file: shapes in mm, y upwards, with what the file says of
 * their group, colour, fill and line; words; the size the file claims; and what could not be read.
 */

import type { Path } from '../geometry/path';
import { countSegments } from '../geometry/path';
import type { Matrix, Point } from '../geometry/point';
import { halvedArcs, type Segment } from '../geometry/segment';
import { LIMITS } from '../limits';
import type { Raster } from '../tracing/raster';
import { cutTo, keepable } from '../units/text';

/** How a shape of a file is filled: its colour "#rrggbb", and by which winding rule. */
export type ReadFill = { readonly colour: string; readonly rule: 'nonzero' | 'evenodd' };

/** How the outline of a shape is drawn in a file: colour, width in mm, dashes in mm. */
export type ReadStroke = {
  readonly colour: string;
  readonly widthMm: number;
  readonly cap: 'butt' | 'round' | 'square';
  readonly join: 'miter' | 'round' | 'bevel';
  readonly miter: number;
  /** Lengths of dashes and gaps in mm; empty for a full line. */
  readonly dashesMm: readonly number[];
  /** How far into its dashes the line starts, in mm. */
  readonly dashOffsetMm: number;
};

/** Outlines that belong together, drawn at once. */
export type ReadShape = {
  readonly paths: readonly Path[];
  /** Index of its group. */
  readonly group: number;
  readonly fill: ReadFill | null;
  readonly stroke: ReadStroke | null;
  /** Indices of the clips that all hold for it. */
  readonly clips: readonly number[];
};

/** A clip shows what lies in any of its shapes, each of which may be clipped itself. */
export type ReadClip = readonly {
  readonly paths: readonly Path[];
  readonly rule: ReadFill['rule'];
  readonly clips: readonly number[];
}[];

/** A line of words in a file, to be set in a typeface from here. */
export type ReadText = {
  /** One line. */
  readonly text: string;
  /** From the line's own place, x along the baseline and y up from it in mm, to the drawing. */
  readonly matrix: Matrix;
  /** Height of a capital in mm before `matrix`. */
  readonly capitalMm: number;
  readonly align: 'left' | 'centre' | 'right';
  /** The typeface the file asks for, '' when it names none. */
  readonly face: string;
  readonly bold: boolean;
  readonly italic: boolean;
  readonly group: number;
};

/** A point of a file: a place where a tool is only set down. `before` of the shapes were drawn before it. */
export type ReadPoint = {
  readonly at: Point;
  /** What it is drawn as, of no group of shapes. */
  readonly of: Pick<ReadGroup, 'name' | 'colour' | 'pen'>;
  readonly before: number;
};

/** A picture in a file: its pixels, and from these, counted from its middle with y upwards, to the drawing in mm. */
export type ReadPicture = { readonly raster: Raster; readonly matrix: Matrix };

/** Shapes that the file treats alike: one layer or named group, one colour, filled or only lines. */
export type ReadGroup = {
  readonly name: string;
  readonly colour: string;
  readonly filled: boolean;
  /** Number of the pen that draws it, in files for plotters. */
  readonly pen?: number;
};

/** What the numbers of a file are: pixels, points of a page, units of a drawing, steps of a plotter. */
export type FileMeasure = 'pixels' | 'points' | 'units' | 'steps';

/** What the file says about its size. */
export type SizeClaim = {
  /** The unit in the user's words: "millimetres", "pixels of 1/96 inch". */
  readonly unit: string;
  /** Millimetres of one unit of the file's own coordinates, as read. */
  readonly mmPerUnit: number;
  /** Whether the file itself says so; else it is assumed. */
  readonly stated: boolean;
  readonly measure: FileMeasure;
};

/** What was read from a file, whatever its format: shapes in mm, y upwards, in groups, and what was not read. */
export type ReadDrawing = {
  /** "SVG", "DXF R12". */
  readonly format: string;
  readonly claim: SizeClaim;
  /** The page in mm where the file has one: its lower left corner is the origin. */
  readonly page: { readonly width: number; readonly height: number } | null;
  readonly shapes: readonly ReadShape[];
  readonly clips: readonly ReadClip[];
  readonly texts: readonly ReadText[];
  readonly pictures: readonly ReadPicture[];
  /** Counted as unread too: they are no outlines. */
  readonly points: readonly ReadPoint[];
  readonly groups: readonly ReadGroup[];
  /** What could not be read, by kind in the user's words. */
  readonly unread: readonly { readonly kind: string; readonly count: number }[];
  /** Sentences about the file: where it is damaged, what was left out. */
  readonly notes: readonly string[];
  /** Whether all of it was read: it breaks off nowhere, and meets no limit. */
  readonly isWhole: boolean;
};

/** A drawing that was read, or a sentence why none could be. */
export type Reading =
  | { readonly ok: true; readonly found: ReadDrawing }
  | { readonly ok: false; readonly sentence: string };

/** Told how far a reader has come, 0 to 1. */
export type ReadProgress = (share: number) => void;

/** What points are called among what was not read. */
export const POINTS = 'points';

/** Thrown inside a reader when a limit is met; what was read until then is kept. */
export class ReadingStops extends Error {}

/** Gathers what a reader finds, within the limits. */
export class Finder {
  readonly shapes: ReadShape[] = [];
  readonly clips: ReadClip[] = [];
  readonly texts: ReadText[] = [];
  readonly pictures: ReadPicture[] = [];
  readonly points: ReadPoint[] = [];
  readonly groups: ReadGroup[] = [];
  readonly notes: string[] = [];
  private isWhole = true;
  private readonly unreadKinds = new Map<string, number>();
  private readonly groupIndex = new Map<string, number>();
  private segments = 0;
  /** The group that was asked for last: most shapes are of the same as the one before. */
  private last: {
    readonly name: string;
    readonly colour: string;
    readonly filled: boolean;
    readonly index: number;
  } | null = null;

  groupOf(name: string, colour: string, filled: boolean, pen?: number): number {
    const { last } = this;
    if (last && last.name === name && last.colour === colour && last.filled === filled) return last.index;
    const key = `${filled ? 1 : 0}${colour}${name}`;
    let index = this.groupIndex.get(key);
    if (index === undefined) {
      if (this.groups.length >= LIMITS.drawnGroups) {
        this.note(
          `The drawing has more than ${LIMITS.drawnGroups} layers and colours; what comes after them is taken with the last.`,
        );
        return LIMITS.drawnGroups - 1;
      }
      index = this.groups.length;
      const said = { name: cutTo(keepable(name), LIMITS.nameCharacters), colour, filled };
      this.groups.push(pen === undefined ? said : { ...said, pen });
      this.groupIndex.set(key, index);
    }
    this.last = { name, colour, filled, index };
    return index;
  }

  /** Paths without a single sensible number are counted as unread; the rest is kept. */
  shape(shape: ReadShape): void {
    const paths = this.sound(shape.paths);
    if (paths.length > 0) this.shapes.push(paths === shape.paths ? shape : { ...shape, paths });
  }

  /** The paths that can be drawn, the same list where all can as they are; they count towards the limit. */
  sound(paths: readonly Path[]): readonly Path[] {
    const all = paths.map((path): Path => {
      const segments = halvedArcs(path.segments);
      return segments === path.segments ? path : { ...path, segments };
    });
    const whole = all.filter((path) => path.segments.length > 0 && path.segments.every(isSound));
    const kept = whole.length === paths.length && whole.every((path, i) => path === paths[i]) ? paths : whole;
    const lost = all.reduce((sum, { segments }) => sum + (segments.length > 0 ? 1 : 0), 0) - whole.length;
    if (lost > 0) this.unread('paths with places that are not numbers or beyond 100 m', lost);
    this.segments += countSegments(kept);
    if (this.segments > LIMITS.drawnSegments)
      throw new ReadingStops(
        `The drawing has more than ${LIMITS.drawnSegments.toLocaleString('en')} lines and curves; what comes after them was left out.`,
      );
    return kept;
  }

  text(text: ReadText): void {
    if (this.texts.length < LIMITS.drawnTexts) this.texts.push(text);
    else this.unread(`lines of words beyond the first ${LIMITS.drawnTexts.toLocaleString('en')}`);
  }

  /** Pictures beyond as many as lie on a sheet are counted as unread. */
  picture(picture: ReadPicture): void {
    if (this.pictures.length < LIMITS.placedPictures) this.pictures.push(picture);
    else this.unread('pictures');
  }

  /** A point, counted as unread; those beyond as many as segments are read, or that are nowhere, are counted alone. */
  point(at: Point, of: ReadPoint['of']): void {
    this.unread(POINTS);
    const isSomewhere = Math.abs(at.x) <= LIMITS.drawnLengthMm && Math.abs(at.y) <= LIMITS.drawnLengthMm;
    if (isSomewhere && this.points.length < LIMITS.drawnSegments)
      this.points.push({ at, of, before: this.shapes.length });
  }

  unread(kind: string, count = 1): void {
    this.unreadKinds.set(kind, (this.unreadKinds.get(kind) ?? 0) + count);
  }

  note(sentence: string): void {
    if (!this.notes.includes(sentence) && this.notes.length < LIMITS.drawnNotes) this.notes.push(sentence);
  }

  /** A sentence why not all of the file was read. */
  breaksOff(sentence: string): void {
    this.isWhole = false;
    this.note(sentence);
  }

  found(format: string, claim: SizeClaim, page: ReadDrawing['page']): ReadDrawing {
    const unread = [...this.unreadKinds].map(([kind, count]) => ({ kind, count })).sort((a, b) => b.count - a.count);
    const { shapes, clips, texts, pictures, points, groups, notes, isWhole } = this;
    return { format, claim, page, shapes, clips, texts, pictures, points, groups, unread, notes, isWhole };
  }
}

const isWithin = (value: number): boolean => Math.abs(value) <= LIMITS.drawnLengthMm;

/** Whether all of a segment is a number within the limits; the middle of an arc that is nearly straight may lie anywhere. */
function isSound(s: Segment): boolean {
  if (!isWithin(s.x0) || !isWithin(s.y0) || !isWithin(s.x1) || !isWithin(s.y1)) return false;
  switch (s.kind) {
    case 'line':
      return true;
    case 'quadratic':
      return isWithin(s.ax) && isWithin(s.ay);
    case 'cubic':
      return isWithin(s.ax) && isWithin(s.ay) && isWithin(s.bx) && isWithin(s.by);
    case 'arc':
      return Number.isFinite(s.cx) && Number.isFinite(s.cy) && isWithin(s.sweep);
  }
}
