/** A machine of the shop: what it can do, how it moves, and what it wants in a file. Lengths in mm, times in seconds. */
import { z } from 'zod';
import { LIMITS } from '../../limits';
import { about, colour, id, name, price } from '../fields';

/** Kinds of machines. */
export const MACHINE_KINDS = ['laser', 'plasma', 'water jet', 'router', 'engraver', 'knife', 'pen'] as const;
/** A kind of machine; an engraver turns a cutter over the stock. */
export type MachineKind = (typeof MACHINE_KINDS)[number];

const speed = z.number().min(LIMITS.speedLeastMmS).max(LIMITS.speedMostMmS);
const seconds = z.number().min(0).max(3600).default(0);
const factor = z.number().min(LIMITS.timeFactorLeast).max(LIMITS.timeFactorMost).default(1);
const byAxis = <T extends z.ZodType>(of: T, x: z.input<T>, y: z.input<T>) =>
  z.strictObject({ x: of.default(x as never), y: of.default(y as never) }).prefault({});

/** What machines want in files. */
const fileSchema = z.strictObject({
  format: about(z.enum(['svg', 'dxf', 'pdf', 'hpgl']).default('svg'), 'Format of the file.'),
  dxf: about(z.enum(['R12', '2000', '2007']).default('2007'), 'Version, of DXF.'),
  unit: about(z.enum(['mm', 'in']).default('mm'), 'Unit of the numbers in it, of DXF.'),
  curves: about(z.enum(['curves', 'arcs', 'lines']).default('curves'), 'Kinds of curves it reads.'),
  colours: about(
    z.strictObject({ cut: colour, score: colour, engrave: colour, mark: colour }).nullable().default(null),
    'Colours it reads, by kind of operation; null: those of the job.',
  ),
  layers: about(
    z
      .strictObject({
        cut: name.trim().min(1),
        score: name.trim().min(1),
        engrave: name.trim().min(1),
        mark: name.trim().min(1),
      })
      .nullable()
      .default(null),
    'Names of layers it reads, by kind of operation; null: what operations are called.',
  ),
  perOperation: about(z.boolean().default(false), 'One file for each operation.'),
  mostSegments: about(
    z.int().min(10).max(LIMITS.machineSegments).nullable().default(null),
    'Most segments it takes in one file; null: any number.',
  ),
});

/** A machine. */
export const machineSchema = z.strictObject({
  name: about(name.trim().min(1), 'What the shop calls it.'),
  kind: about(z.enum(MACHINE_KINDS), 'What it works with.'),
  bed: about(
    z
      .strictObject({
        width: z.number().min(LIMITS.sheetLeastMm).max(LIMITS.sheetMostMm).default(600),
        height: z.number().min(LIMITS.sheetLeastMm).max(LIMITS.sheetMostMm).default(400),
      })
      .prefault({}),
    'What fits on it, in mm.',
  ),
  origin: about(
    z.enum(['lower left', 'lower right', 'upper left', 'upper right', 'middle']).default('lower left'),
    'Where on the bed 0, 0 is.',
  ),
  axes: about(
    z
      .strictObject({ x: z.enum(['right', 'left']).default('right'), y: z.enum(['up', 'down']).default('up') })
      .prefault({}),
    'Which way numbers grow, seen from the front.',
  ),
  speed: about(byAxis(speed, 500, 500), 'Highest speed of each axis, in mm a second.'),
  slowest: about(speed.default(0.1), 'Lowest speed it runs smoothly at, in mm a second.'),
  acceleration: about(
    byAxis(z.number().min(1).max(1_000_000), 3000, 3000),
    'Acceleration of each axis, in mm a second squared.',
  ),
  cornerMm: about(
    z.number().min(0.001).max(10).default(0.05),
    'How far it may cut a corner to go round it faster, in mm.',
  ),
  idleSpeed: about(speed.default(500), 'How fast it moves without working, in mm a second.'),
  pierceSeconds: about(seconds, 'How long it takes to go through the stock where a cut begins.'),
  liftSeconds: about(seconds, 'How long it takes to lift and set down a tool.'),
  changeSeconds: about(seconds, 'How long it takes to change a tool or a pen.'),
  factors: about(
    z.strictObject({ cut: factor, score: factor, engrave: factor, mark: factor }).prefault({}),
    'How many times as long as reckoned it takes, by kind of operation, as measured.',
  ),
  hourPrice: about(price, 'What an hour of it costs; null: it is not reckoned.'),
  piercePrice: about(price, 'What a pierce costs; null: it is not reckoned.'),
  areas: about(
    z
      .strictObject({
        rows: about(z.enum(['own', 'full']).default('own'), 'Rows run to their own ends, or all to the full width.'),
        way: about(z.enum(['both', 'one']).default('both'), 'It works back and forth, or in one direction.'),
        runUp: about(
          z.number().min(0).max(1000).default(5),
          'How far it runs on beside a row to get up to speed, in mm.',
        ),
        turnSeconds: about(seconds, 'How long it takes to turn at the end of a row.'),
      })
      .nullable()
      .default(null),
    'How it goes over areas row by row; null where it does not.',
  ),
  file: fileSchema.prefault({}).describe('What it wants in a file.'),
});

/** A machine. */
export type Machine = z.infer<typeof machineSchema>;

/** The machine of a job: as the shop had it, with its id there. */
export const jobMachineSchema = machineSchema.extend({ id: id.default('machine') });
/** The machine of a job. */
export type JobMachine = z.infer<typeof jobMachineSchema>;
