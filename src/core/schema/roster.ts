/** The roster of a job: a list of names, each of which the job is made for once. */
import { z } from 'zod';
import { LIMITS } from '../limits';
import { about, id } from './fields';

/** What no column is called by: fields stand between these in words. */
export const FIELD_MARKS = /[‹›\n\r]/;

const columnName = about(
  z
    .string()
    .min(1)
    .max(LIMITS.columnCharacters)
    .refine((name) => !FIELD_MARKS.test(name) && name.trim() === name, 'can’t hold ‹, › or the end of a line'),
  'What it is called; words take it between ‹ and ›.',
);

/** Ways to write a day. */
export const DATE_FORMS = ['day month year', 'day.month.year', 'year-month-day', 'month/day/year', 'year'] as const;

const columnSchema = z.discriminatedUnion('kind', [
  z.strictObject({ id, kind: z.literal('typed'), name: columnName }),
  z.strictObject({
    id,
    kind: z.literal('number'),
    name: columnName,
    start: about(z.int().min(-LIMITS.runningNumber).max(LIMITS.runningNumber).default(1), 'Number of the first row.'),
    step: about(
      z
        .int()
        .min(-LIMITS.runningNumber)
        .max(LIMITS.runningNumber)
        .refine((step) => step !== 0, 'can’t be 0')
        .default(1),
      'How much more it is in each further row.',
    ),
    digits: about(z.int().min(1).max(12).default(1), 'Digits it has at least; noughts lead.'),
  }),
  z.strictObject({
    id,
    kind: z.literal('date'),
    name: columnName,
    on: about(
      z.iso.date().nullable().default(null),
      'The day, as year-month-day; null: the day on which files are written.',
    ),
    form: about(z.enum(DATE_FORMS).default('day month year'), 'How it is written.'),
  }),
]);

/** Settings by their names, as they stand in what they belong to. */
const settings = z.record(z.string().max(60), z.json());

const ownSchema = z.strictObject({
  parts: about(
    z
      .array(
        z.strictObject({
          id: about(id, 'Which part.'),
          set: about(settings.default({}), 'Settings of the part itself.'),
          members: about(
            z
              .array(z.strictObject({ id, set: settings }))
              .max(LIMITS.members)
              .default([]),
            'Settings of its members.',
          ),
          steps: about(
            z
              .array(
                z.strictObject({
                  kind: about(z.string().max(40), 'Kind of the step.'),
                  nth: about(z.int().min(0).max(LIMITS.steps).default(0), 'Which of that kind, from 0.'),
                  at: about(
                    z.int().min(0).max(LIMITS.steps).nullable().default(null),
                    'Where in the list a step stands that this row alone has; null for one of all rows.',
                  ),
                  set: about(
                    settings.nullable(),
                    'Settings of the step, all of them for one that this row alone has; null: this row is without it.',
                  ),
                }),
              )
              .max(LIMITS.steps)
              .default([]),
            'Settings of its steps.',
          ),
        }),
      )
      .max(LIMITS.parts)
      .default([]),
    'Parts that have something of their own in this row.',
  ),
  leftAsIs: about(
    z
      .array(z.strictObject({ finding: z.string().max(300), reason: z.string().max(1000).default('') }))
      .max(500)
      .default([]),
    'Findings of this row that were looked at and left.',
  ),
});

const rowSchema = z.strictObject({
  id,
  cells: about(
    z.array(z.string().max(LIMITS.cellCharacters)).max(LIMITS.columns).default([]),
    'What is typed, in the order of the columns; what is missing is empty.',
  ),
  copies: about(z.int().min(1).max(LIMITS.copiesOfRow).default(1), 'How often it is made.'),
  out: about(z.boolean().default(false), 'Left out: kept, but not made.'),
  own: about(ownSchema.nullable().default(null), 'What is otherwise in this row than in the others; null for nothing.'),
});

/** A roster: columns and rows. */
export const rosterSchema = z
  .strictObject({
    columns: about(
      z.array(columnSchema).max(LIMITS.columns),
      'What words can take: typed for each row, a running number, or a date.',
    ),
    rows: about(z.array(rowSchema).max(LIMITS.rosterRows).default([]), 'Each makes the job once.'),
  })
  .superRefine(({ columns, rows }, context) => {
    const twice = (values: readonly string[], path: string, key: string, says: (value: string) => string) => {
      const met = new Set<string>();
      values.forEach((value, i) => {
        if (met.has(value)) context.addIssue({ code: 'custom', path: [path, i, key], message: says(value) });
        met.add(value);
      });
    };
    twice(
      columns.map((c) => c.id),
      'columns',
      'id',
      (value) => `the id “${value}” is used twice`,
    );
    twice(
      columns.map((c) => c.name.toLowerCase()),
      'columns',
      'name',
      (value) => `two columns are called “${value}”`,
    );
    twice(
      rows.map((r) => r.id),
      'rows',
      'id',
      (value) => `the id “${value}” is used twice`,
    );
    rows.forEach((row, i) => {
      if (row.cells.length > columns.length)
        context.addIssue({
          code: 'custom',
          path: ['rows', i, 'cells'],
          message: `a row has ${row.cells.length} cells, and there are ${columns.length} columns`,
        });
    });
  });

/** A list of names that a job is made for. */
export type Roster = z.infer<typeof rosterSchema>;
/** A column of it: typed for each row, a running number, or a date. */
export type Column = z.infer<typeof columnSchema>;
/** A row of it. */
export type RosterRow = z.infer<typeof rowSchema>;
/** What is otherwise in a row than in the others. */
export type RowOwn = z.infer<typeof ownSchema>;
/** How a day is written. */
export type DateForm = (typeof DATE_FORMS)[number];
