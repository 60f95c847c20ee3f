/** The job document: what a job is, with limits and defaults. docs/job-format.md is written from this file. */
import { z } from 'zod';
import { stepTroubles } from '../kinds/steps';
import { LIMITS } from '../limits';
import { about, id, name } from '../schema/fields';
import { layoutSchema } from '../schema/layout';
import { colourKeySchema, exportSchema, operationSchema } from '../schema/operations';
import { placedPictureSchema } from '../schema/picture';
import { rosterSchema } from '../schema/roster';
import { sheetSchema } from '../schema/sheet';
import { jobMachineSchema } from '../schema/shop/machine';
import { operationSettingsSchema } from '../schema/shop/settings';
import { starterSchema } from '../schema/starter';
import { listedToolSchema } from '../schema/tools';
import { partSchema } from './part';

/** The version of the job document that is written; older ones are read through their migrations. */
export const JOB_FORMAT = 15;

/** A sheet that is not in hand: the stock, and how operations are done on it. */
const otherSheetSchema = z.strictObject({
  id,
  name: about(name.default(''), 'What it is called; empty: by its material.'),
  sheet: sheetSchema,
  machine: about(
    id.nullable().default(null),
    'Id of the machine that the settings are for, to be taken anew when it is another; null when none was given.',
  ),
  settings: about(
    z.record(id, operationSettingsSchema).default({}),
    'Settings of operations on it, by the id of the operation.',
  ),
});

const leftAsIsSchema = z.strictObject({
  finding: about(z.string().max(300), 'Key of the finding.'),
  reason: about(z.string().max(1000).default(''), 'Why, in the user’s words.'),
});

const standardOperations = () =>
  [
    { id: 'engrave', name: 'Engrave', kind: 'engrave' },
    { id: 'mark', name: 'Mark', kind: 'mark' },
    { id: 'score', name: 'Score', kind: 'score' },
    { id: 'cut', name: 'Cut', kind: 'cut' },
  ] satisfies z.input<typeof operationSchema>[];

/** Sizes that are easily had, from coarse to fine. */
const standardTools = () =>
  [
    { id: 'flat-3', shape: 'flat', tip: 3 },
    { id: 'flat-2', shape: 'flat', tip: 2, feed: 900 },
    { id: 'flat-1-5', shape: 'flat', tip: 1.5, feed: 800 },
    { id: 'flat-1', shape: 'flat', tip: 1, feed: 700 },
    { id: 'round-1', shape: 'round', tip: 1, depth: 0.3, feed: 700 },
    { id: 'cone-60', shape: 'cone', tip: 0.2, depth: 0.4, feed: 600 },
    { id: 'cone-30', shape: 'cone', tip: 0.1, angle: 30, depth: 0.3, feed: 500 },
  ] satisfies z.input<typeof listedToolSchema>[];

/** Whether a part goes along with itself by way of others. */
function goesInCircle(id: string, leaders: ReadonlyMap<string, string | null>): boolean {
  let next = leaders.get(id) ?? null;
  for (let steps = 0; next !== null && steps <= leaders.size; steps++) {
    if (next === id) return true;
    next = leaders.get(next) ?? null;
  }
  return false;
}

/** The job document. Reading fills in defaults; what does not belong is refused. Lengths in mm, y upwards. */
export const jobSchema = z
  .strictObject({
    format: about(z.literal(JOB_FORMAT), 'Version of this format.'),
    title: about(name.default('Untitled'), 'What the job is called.'),
    tags: about(
      z.array(z.string().min(1).max(LIMITS.tagCharacters)).max(LIMITS.tags).default([]),
      'Words to find it by.',
    ),
    units: about(z.enum(['mm', 'in']).default('mm'), 'Unit lengths are shown in. The document itself is always in mm.'),
    sheet: sheetSchema.describe(
      'The stock in hand: what parts on it are cut out of, and what settings of operations are for.',
    ),
    sheetId: about(id.default('sheet'), 'Id of the sheet in hand; parts name the sheet they are on.'),
    sheetName: about(name.default(''), 'What the sheet in hand is called; empty: by its material.'),
    otherSheets: about(
      z
        .array(otherSheetSchema)
        .max(LIMITS.sheets - 1)
        .default([]),
      'Further stock of the same job, each with the settings that operations have on it.',
    ),
    machine: about(
      jobMachineSchema.nullable().default(null),
      'The machine it is made on, as the shop had it; null when not given.',
    ),
    parts: about(z.array(partSchema).max(LIMITS.parts).default([]), 'What comes off the machine, in order.'),
    pictures: about(
      z.array(placedPictureSchema).max(LIMITS.placedPictures).default([]),
      'Pictures that lie under the parts, to draw over and to trace; the first lies lowest.',
    ),
    operations: about(
      z.array(operationSchema).max(LIMITS.operations).prefault(standardOperations),
      'In the order they run.',
    ),
    tools: about(
      z.array(listedToolSchema).max(LIMITS.tools).prefault(standardTools),
      'Tools there are to fill letters with; one that suits is proposed from these.',
    ),
    colourKey: colourKeySchema.prefault({}).describe('Colours the machine reads, by kind of operation.'),
    export: exportSchema.prefault({}).describe('How files are written.'),
    roster: about(
      rosterSchema.nullable().default(null),
      'A list of names that the job is made for, once each; null where there is none.',
    ),
    layout: about(
      layoutSchema.nullable().default(null),
      'How the names of the list are laid on sheets; null where each is a job by itself.',
    ),
    starter: about(
      starterSchema.nullable().default(null),
      'What other jobs are started from it for; null for a job of its own.',
    ),
    leftAsIs: about(z.array(leftAsIsSchema).max(2000).default([]), 'Findings the user has looked at and left.'),
  })
  .superRefine((job, context) => {
    const operations = new Set(job.operations.map((o) => o.id));
    const unique = (ids: readonly string[], path: (string | number)[]) => {
      ids.forEach((value, i) => {
        if (ids.indexOf(value) !== i)
          context.addIssue({ code: 'custom', path: [...path, i, 'id'], message: `the id “${value}” is used twice` });
      });
    };
    unique(
      job.operations.map((o) => o.id),
      ['operations'],
    );
    unique(
      job.parts.map((p) => p.id),
      ['parts'],
    );
    unique(
      job.pictures.map((p) => p.id),
      ['pictures'],
    );
    unique(
      job.tools.map((t) => t.id),
      ['tools'],
    );
    const sheets = [job.sheetId, ...job.otherSheets.map((s) => s.id)];
    unique(
      job.otherSheets.map((s) => s.id),
      ['otherSheets'],
    );
    if (sheets.indexOf(job.sheetId, 1) > 0)
      context.addIssue({ code: 'custom', path: ['sheetId'], message: `the id “${job.sheetId}” is used twice` });
    const leaders = new Map(job.parts.map((p) => [p.id, p.along]));
    job.parts.forEach((part, i) => {
      if (!sheets.includes(part.sheet))
        context.addIssue({
          code: 'custom',
          path: ['parts', i, 'sheet'],
          message: `there is no sheet “${part.sheet}”`,
        });
      if (part.along !== null && !leaders.has(part.along))
        context.addIssue({
          code: 'custom',
          path: ['parts', i, 'along'],
          message: `there is no part “${part.along}”`,
        });
      if (goesInCircle(part.id, leaders))
        context.addIssue({
          code: 'custom',
          path: ['parts', i, 'along'],
          message: 'parts can’t go along with each other in a circle',
        });
      unique(
        part.members.map((m) => m.id),
        ['parts', i, 'members'],
      );
      for (const { at, sentence } of stepTroubles(part.steps))
        context.addIssue({ code: 'custom', path: ['parts', i, 'steps', at], message: sentence });
      part.work.forEach((work, k) => {
        if (!operations.has(work.operation))
          context.addIssue({
            code: 'custom',
            path: ['parts', i, 'work', k, 'operation'],
            message: `there is no operation “${work.operation}”`,
          });
      });
    });
  });

/** A job: sheet, parts, operations and how it is exported. */
export type Job = z.infer<typeof jobSchema>;

// What documents are made of, for those who work on whole documents.
export type { Step, StepOf } from '../kinds/steps';
export type { TieAnswer } from '../kinds/steps/tie';
export type { Work } from '../kinds/works';
export type { Artwork, CloseSettings } from '../schema/artwork';
export type { CloseUp, LetterChange, Lettering, OwnLine } from '../schema/lettering';
export type { Copy, DrawnPath, Member, Shape, ShapeKind } from '../schema/members';
export type { ExportSettings, Operation, OperationKind } from '../schema/operations';
export type { Crop, PlacedPicture, Trace } from '../schema/picture';
export type { Placement } from '../schema/placement';
export type { Column, Roster, RosterRow, RowOwn } from '../schema/roster';
export type { Sheet } from '../schema/sheet';
export type { JobMachine } from '../schema/shop/machine';
export type { HatchTool as FillTool, ListedTool } from '../schema/tools';
export type { Part } from './part';
