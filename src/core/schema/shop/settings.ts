/** Settings of an operation on a machine. */
import { z } from 'zod';
import { LIMITS } from '../../limits';
import { about } from '../fields';

/** Gases and air that are blown at a cut. */
export const GASES = ['none', 'air', 'oxygen', 'nitrogen', 'argon'] as const;

const fields = {
  speed: about(
    z.number().min(LIMITS.speedLeastMmS).max(LIMITS.speedMostMmS).nullable(),
    'How fast it works, in mm a second.',
  ),
  power: about(z.number().min(0).max(100).nullable(), 'Power of a beam, in per cent.'),
  current: about(z.number().min(0).max(2000).nullable(), 'Current of an arc, in amperes.'),
  passes: about(z.int().min(1).max(LIMITS.passes), 'How often it goes over the same line.'),
  depth: about(z.number().min(0).max(1000).nullable(), 'How deep it works in all passes together, in mm.'),
  lastPass: about(
    z.number().min(0).max(1000).nullable(),
    'Depth of the last pass, in mm, where that is to be a light one; null: all passes alike.',
  ),
  gas: about(z.enum(GASES).nullable(), 'Gas or air.'),
  rowDistance: about(z.number().min(0.001).max(100).nullable(), 'From row to row where it goes over areas, in mm.'),
  kerf: about(z.number().min(0).max(100).nullable(), 'Width that it takes away, in mm.'),
  tool: about(z.string().max(LIMITS.nameCharacters), 'The tool, by its name in the shop; empty for none.'),
};

/** Settings of an operation; null where one is not given. */
export const settingsSchema = z.strictObject({
  speed: fields.speed.default(null),
  power: fields.power.default(null),
  current: fields.current.default(null),
  passes: fields.passes.default(1),
  depth: fields.depth.default(null),
  lastPass: fields.lastPass.default(null),
  gas: fields.gas.default(null),
  rowDistance: fields.rowDistance.default(null),
  kerf: fields.kerf.default(null),
  tool: fields.tool.default(''),
});

/** Some of the settings: those that were typed. */
const typedSettingsSchema = z.strictObject(fields).partial();

/** Where settings come from: the cut chart as it was when they were taken, and what was typed over it. */
export const operationSettingsSchema = z.strictObject({
  charted: about(settingsSchema.nullable().default(null), 'As the cut chart says; null where it says nothing.'),
  from: about(
    z.enum(['row', 'between']).nullable().default(null),
    'A `row` of the chart, or reckoned from the two rows `between` which the thickness is.',
  ),
  tried: about(z.boolean().default(false), 'Whether the chart says that it was tried.'),
  toolWidth: about(
    z.number().min(0.001).max(1000).nullable().default(null),
    'How wide the tool in use works, in mm, as the shop had it; null where there is none, or it is not known.',
  ),
  typed: about(typedSettingsSchema.prefault({}), 'What was typed by hand, which stays whatever the chart says.'),
});

/** Settings of an operation on a machine. */
export type Settings = z.infer<typeof settingsSchema>;
/** The settings of an operation with where they come from. */
export type OperationSettings = z.infer<typeof operationSettingsSchema>;
/** A setting by its name. */
export type SettingName = keyof Settings;

/** Settings of which nothing is given. */
export const NO_SETTINGS: Settings = settingsSchema.parse({});
/** The names of all settings, in the order they are listed. */
export const SETTING_NAMES = Object.keys(NO_SETTINGS) as readonly SettingName[];
