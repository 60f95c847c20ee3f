/** The neutral drawing that every file format is written from. In mm, y upwards; see `Frame` for where 0, 0 is. */

import type { Drawable } from '../geometry/drawable';
import { closedPath, type Path } from '../geometry/path';
import type { Point } from '../geometry/point';
import { arcAbout } from '../geometry/segment';
import { decimal } from '../units/decimal';
import type { FormatKeeps, ReadBack } from './read-back/read-back';

/** What one operation draws in a file, with its name, colour and the order it is run in. */
export type Layer = {
  readonly name: string;
  readonly kind: 'cut' | 'score' | 'engrave' | 'mark';
  /** On which side of its outlines the machine is to keep; left out where it runs on them. */
  readonly side?: 'inside' | 'outside';
  /** "#rrggbb". */
  readonly colour: string;
  /** How far lines and arcs may stray from its curves in formats that have no curves, in mm. */
  readonly tolerance: number;
  /** How filled areas are scanned: mm from line to line, and their direction in degrees; null when not given. */
  readonly scan: { readonly interval: number; readonly direction: number } | null;
  /** Number of the pen that draws it, from 1, in files for plotters. */
  readonly pen: number;
  /** In running order. */
  readonly drawn: readonly Drawable[];
  /** How the machine is to do it, for those who read the file: no format of drawings carries it to a machine. */
  readonly settings?: readonly LayerSetting[];
};

/** A setting by its name in files, "speed-mm-s", with its value there and in words, "20 mm/s". */
export type LayerSetting = { readonly name: string; readonly value: string; readonly words: string };

/** What is written to a file, whatever its format: layers of paths and dots in mm, y upwards, on a page. */
export type Drawing = {
  readonly title: string;
  /** The day it is given out, "2026-05-04"; left out where nobody said. */
  readonly date?: string;
  readonly width: number;
  readonly height: number;
  /** In running order; layers with nothing in them are left out. */
  readonly layers: readonly Layer[];
};

/** How files are to be written; lengths in mm. */
export type WriteSettings = {
  /** Of lines in formats that draw them. */
  readonly lineWidth: number;
  readonly dxf: 'R12' | '2000' | '2007';
  /** Of the numbers in DXF files. */
  readonly dxfUnit: 'mm' | 'in';
  /** Whether a page fits the work or is the sheet, in formats that have pages. */
  readonly page: 'work' | 'sheet';
  /** Where 0, 0 is in files for plotters: the lower left corner of the work, its middle, or that of the sheet. */
  readonly plotterOrigin: 'corner' | 'middle' | 'placed';
};

/** Where a drawing lies: its page fits the work or is the sheet, with 0, 0 at its lower left corner or in its middle. */
export type Frame = {
  readonly page: 'work' | 'sheet';
  readonly origin: 'corner' | 'middle';
  /** Room that a page which fits the work leaves around it for the drawn line, in mm. */
  readonly roomMm: number;
};

/** A format that files are written in: one file says all about it, written.ts lists them. */
export type FormatToWrite<Id extends string> = {
  readonly id: Id;
  /** What it is called. */
  readonly word: string;
  /** Ending of file names, without the dot. */
  readonly ending: string;
  /** Media type. */
  readonly type: string;
  readonly write: (drawing: Drawing, settings: WriteSettings) => Uint8Array;
  /** Where a drawing lies in its files. */
  readonly frame: (settings: WriteSettings) => Frame;
  /** Reads back what was written; throws `NotAsWritten`. */
  readonly readBack: (bytes: Uint8Array, settings: WriteSettings) => ReadBack;
  readonly keeps: FormatKeeps;
};

/** "Engrave: areas are scanned in lines 0.1 mm apart, 0 degrees from level.", for those who read the file; null without areas. */
export const scanWords = ({ name, scan, drawn }: Layer): string | null =>
  scan && drawn.some((d) => d.kind === 'area')
    ? `${name}: areas are scanned in lines ${decimal(scan.interval, 4)} mm apart, ${decimal(scan.direction, 2)} degrees from level.`
    : null;

/** "Cut: 20 mm/s, 70 %, 2 passes.", for those who read the file; null where nothing is set. */
const settingsWords = ({ name, settings = [] }: Layer): string | null =>
  settings.length > 0 ? `${name}: ${settings.map((s) => s.words).join(', ')}.` : null;

/** All that is said of a layer to those who read the file, each in a sentence. */
export const layerWords = (layer: Layer): string[] =>
  [scanWords(layer), settingsWords(layer)].flatMap((words) => words ?? []);

/** Red, green and blue of a colour "#rrggbb", each 0 to 255. */
export const rgbOf = (colour: string): readonly [number, number, number] => [
  Number.parseInt(colour.slice(1, 3), 16),
  Number.parseInt(colour.slice(3, 5), 16),
  Number.parseInt(colour.slice(5, 7), 16),
];

/** A whole circle of four arcs. */
export const circleAt = ({ x, y }: Point, r: number): Path =>
  closedPath([0, 1, 2, 3].map((k) => arcAbout(x, y, r, (k * Math.PI) / 2, Math.PI / 2)));

/** Names made distinct by a number behind them, ignoring case, in order. */
export function distinctNames(names: readonly string[]): string[] {
  const seen = new Set<string>();
  return names.map((name) => {
    let free = name;
    for (let n = 2; seen.has(free.toLowerCase()); n++) free = `${name} ${n}`;
    seen.add(free.toLowerCase());
    return free;
  });
}
