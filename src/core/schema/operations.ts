/** Operations of the machine, the colours it reads, and how files are written. */
import { z } from 'zod';
import { LIMITS } from '../limits';
import { about, colour, id, name } from './fields';
import { operationSettingsSchema } from './shop/settings';

/** By what the order goes. */
const ORDERS = ['way', 'rows', 'spread'] as const;

const orderSchema = z.strictObject({
  by: about(
    z.enum(ORDERS).default('way'),
    '`way`: the least way between; `rows`: row by row; `spread`: not side by side, so that the heat spreads.',
  ),
  pinned: about(
    z.array(id).max(LIMITS.parts).default([]),
    'Ids of parts that are run first, in this order, with all that must be done before them.',
  ),
  found: about(
    z
      .strictObject({
        of: about(z.string().regex(/^[0-9a-f]{16}$/), 'Tells what was put in order apart from anything else.'),
        order: about(z.array(z.int().min(0)).max(LIMITS.putInOrder), 'What is run, by its number, in order.'),
        ways: about(z.array(z.int().min(0)).max(LIMITS.putInOrder), 'In which of its ways each is run, by its number.'),
      })
      .nullable()
      .default(null),
    'An order that was searched for longer; it holds as long as nothing of what it orders is changed. Null: none.',
  ),
});

/** An operation: its kind, settings and colour; its place in the list is its place in the running order. */
export const operationSchema = z.strictObject({
  id,
  name: about(name.min(1), 'What the user calls it; the layer or group in files.'),
  kind: about(z.enum(['cut', 'score', 'engrave', 'mark']), 'What it does to the stock.'),
  on: about(z.boolean().default(true), 'Operations that are off are not exported.'),
  tip: about(
    z.number().min(0.001).max(1000).nullable().default(null),
    'Width of the line it makes, of a pen, a scribe or a beam, in mm; null when not given.',
  ),
  scan: about(
    z
      .strictObject({
        interval: about(z.number().min(0.001).max(100).default(0.1), 'From line to line in mm.'),
        direction: about(z.number().min(-360).max(360).default(0), 'Of the lines, in degrees from level.'),
      })
      .nullable()
      .default(null),
    'How a beam scans areas that are handed over as a whole; null when not given.',
  ),
  colour: about(colour.nullable().default(null), 'Colour in files; null follows the colour key.'),
  pens: about(
    z.array(z.int().min(1).max(LIMITS.pens)).max(LIMITS.pensOfOperation).default([]),
    'Pens that stand for it in plotter files: it is written with the first, and read from all; empty follows the running order.',
  ),
  kerfSide: about(
    z.enum(['line', 'beside', 'machine']).default('line'),
    'Where a cut runs: `line`, on the outlines; `beside`, half its width outside of edges and inside of holes; `machine`, that is left to the machine, and layers in files say the side.',
  ),
  lead: about(
    z
      .strictObject({
        shape: about(z.enum(['line', 'arc']).default('arc'), 'By a line, or by an arc that touches the outline.'),
        in: about(
          z.number().min(0.1).max(LIMITS.leadMm).nullable().default(null),
          'Length of the lead-in in mm; null: by the thickness.',
        ),
        out: about(z.number().min(0).max(LIMITS.leadMm).default(0), 'Length of the lead-out in mm.'),
        over: about(
          z.number().min(-LIMITS.leadMm).max(LIMITS.leadMm).default(0),
          'How far the cut goes on beyond where it began, in mm; negative: how far it stops before.',
        ),
      })
      .nullable()
      .default(null),
    'Lead-in and lead-out: how cuts begin in scrap and run in and out; null: they begin on the outline.',
  ),
  tabs: about(
    z
      .strictObject({
        width: about(z.number().min(0.05).max(LIMITS.tabMm).default(1), 'How wide what stays uncut is, in mm.'),
        count: about(
          z.int().min(1).max(LIMITS.tabsOfOutline).nullable().default(null),
          'Tabs of each outline; null: as many as its size asks for.',
        ),
        scrap: about(z.boolean().default(false), 'What falls out of holes is held by tabs too.'),
      })
      .nullable()
      .default(null),
    'Tabs: small places left uncut, so that pieces stay in their sheet; null: none.',
  ),
  settings: operationSettingsSchema.prefault({}).describe('How the machine does it.'),
  order: orderSchema.prefault({}).describe('The order in which what it does is run.'),
});

/**
 * The colours the user's machine reads, by kind of operation. Those to begin with are told apart in every kind of colour vision, which
 * a test measures.
 */
export const colourKeySchema = z.strictObject({
  cut: colour.default('#1A26AF'),
  score: colour.default('#248B88'),
  engrave: colour.default('#B26417'),
  mark: colour.default('#501528'),
});

/** What the name of a file can be made of. */
export const NAME_FIELDS = ['job', 'piece', 'material', 'thickness', 'date', 'number', 'row'] as const;

/** One thing that the name of a file is made of. */
export type NameField = (typeof NAME_FIELDS)[number];

/** How files are written: line width, DXF release, tolerance of arcs. */
export const exportSchema = z.strictObject({
  page: about(
    z.enum(['work', 'sheet']).default('work'),
    '`work`: the page fits the work, its corner is the origin; `sheet`: the page is the sheet.',
  ),
  arcTolerance: about(
    z.number().min(LIMITS.arcToleranceLeastMm).max(LIMITS.arcToleranceMostMm).default(0.02),
    'How far lines and arcs in DXF, and chords in plotter files, may stray from the curves, in mm.',
  ),
  markTolerance: about(
    z.number().min(LIMITS.arcToleranceLeastMm).max(LIMITS.arcToleranceMostMm).default(0.127),
    'The same for what is marked.',
  ),
  dxf: about(z.enum(['R12', '2000', '2007']).default('2007'), 'Version of DXF files.'),
  dxfUnit: about(z.enum(['mm', 'in']).default('mm'), 'Unit of the numbers in DXF files.'),
  nameFields: about(
    z
      .array(z.enum(NAME_FIELDS))
      .max(NAME_FIELDS.length)
      .refine((fields) => new Set(fields).size === fields.length, 'each may be there once')
      .default(['job', 'piece', 'material', 'thickness']),
    'What names of files are made of, in this order; what is not known is left out.',
  ),
  number: about(
    z.string().max(LIMITS.nameCharacters).default(''),
    'Number of the order or drawing, for names of files.',
  ),
  plotterOrigin: about(
    z.enum(['corner', 'middle', 'placed']).default('corner'),
    'Where 0, 0 is in plotter files: the lower left corner of the work, its middle, or that of the sheet (`placed`).',
  ),
  lineWidth: about(z.number().min(0.001).max(10).default(0.025), 'Width of lines drawn in SVG and PDF, in mm.'),
  mirrored: about(
    z.boolean().default(false),
    'Files are written as seen from behind, for stock that is worked from there.',
  ),
});

/** An order that was searched for longer, and is kept. */
export type FoundOrder = NonNullable<z.infer<typeof orderSchema>['found']>;

/** A cut, score, engraving or marking. */
export type Operation = z.infer<typeof operationSchema>;

/** What an operation does: cut, score, engrave or mark. */
export type OperationKind = Operation['kind'];

/** How files are written. */
export type ExportSettings = z.infer<typeof exportSchema>;
