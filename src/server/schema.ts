/** The tables. */
import { sql } from 'drizzle-orm';
import {
  bigserial,
  boolean,
  customType,
  doublePrecision,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  timestamp,
  uuid,
} from 'drizzle-orm/pg-core';
import type { Job } from '../core/document/schema';
import type { KeptProof } from '../core/job/given-files';
import type { Picture } from '../core/job/picture';
import type { RowSeen } from '../core/job/rows';
import type { FaceAbout, Look } from '../core/schema/face-about';
import type { Shelf } from '../core/schema/shop/shop';

/** Bytes; drizzle has no column type of its own for them. */
const bytea = customType<{ data: Buffer }>({ dataType: () => 'bytea' });

/** Jobs, each with its newest document. */
export const jobs = pgTable(
  'jobs',
  {
    id: uuid('id').primaryKey().defaultRandom(),
    /** Counts the saves; a save must name the version it was made from. */
    version: integer('version').notNull().default(1),
    document: jsonb('document').$type<Job>().notNull(),
    picture: jsonb('picture').$type<Picture>(),
    openFindings: integer('open_findings').notNull().default(0),
    // Copied out of the document for lists.
    title: text('title').notNull(),
    tags: text('tags').array().notNull().default(sql`'{}'::text[]`),
    units: text('units').$type<'mm' | 'in'>().notNull(),
    material: text('material').notNull(),
    thickness: doublePrecision('thickness'),
    width: doublePrecision('width').notNull(),
    height: doublePrecision('height').notNull(),
    /** Whether others are started from it. */
    isStarter: boolean('is_starter').notNull().default(false),
    /** Which sample job this is, so that samples are loaded once. */
    sample: text('sample').unique(),
    createdAt: timestamp('created_at', { withTimezone: true }).notNull().defaultNow(),
    changedAt: timestamp('changed_at', { withTimezone: true }).notNull().defaultNow(),
    deletedAt: timestamp('deleted_at', { withTimezone: true }),
  },
  (table) => [index('jobs_changed').on(table.changedAt)],
);

/** Earlier versions of a job: by age, and those with a name for good. A version with a name may be the newest one too. */
export const jobRevisions = pgTable(
  'job_revisions',
  {
    jobId: uuid('job_id')
      .notNull()
      .references(() => jobs.id, { onDelete: 'cascade' }),
    version: integer('version').notNull(),
    document: jsonb('document').$type<Job>().notNull(),
    picture: jsonb('picture').$type<Picture>(),
    openFindings: integer('open_findings').notNull().default(0),
    /** What the user called it, to keep it for good. */
    name: text('name'),
    savedAt: timestamp('saved_at', { withTimezone: true }).notNull().defaultNow(),
  },
  (table) => [primaryKey({ columns: [table.jobId, table.version] })],
);

/** Files that were brought in, and the drawings read from them, by what is in them: the same twice is kept once. */
export const assets = pgTable('assets', {
  sha256: text('sha256').primaryKey(),
  bytes: bytea('bytes').notNull(),
  /** Name of the file as it came; '' for drawings that were read. */
  name: text('name').notNull().default(''),
  createdAt: timestamp('created_at', { withTimezone: true }).notNull().defaultNow(),
  /** When it was first seen that nothing uses it any more; null while something does. */
  unusedSince: timestamp('unused_since', { withTimezone: true }),
});

/** Typeface files that were brought in, by what is in them. */
export const typefaces = pgTable('typefaces', {
  content: text('content')
    .primaryKey()
    .references(() => assets.sha256),
  faces: jsonb('faces').$type<FaceAbout[]>().notNull(),
  addedAt: timestamp('added_at', { withTimezone: true }).notNull().defaultNow(),
  /** Taken out of the list; jobs that use it go on. */
  removedAt: timestamp('removed_at', { withTimezone: true }),
});

/** What is noted of faces: by content and number, or by the family of one that ships. */
export const faceMarks = pgTable('face_marks', {
  face: text('face').primaryKey(),
  favourite: boolean('favourite').notNull().default(false),
  look: text('look').$type<Look>(),
  usedAt: timestamp('used_at', { withTimezone: true }),
});

/** What the shop has: machines, materials, tools, and rows of cut charts, each by its shelf and id. */
export const shopEntries = pgTable(
  'shop_entries',
  {
    shelf: text('shelf').$type<Shelf>().notNull(),
    id: text('id').notNull(),
    /** Counts the changes; a change must name the version it was made from. */
    version: integer('version').notNull().default(1),
    entry: jsonb('entry').notNull(),
    changedAt: timestamp('changed_at', { withTimezone: true }).notNull().defaultNow(),
    deletedAt: timestamp('deleted_at', { withTimezone: true }),
  },
  (table) => [primaryKey({ columns: [table.shelf, table.id] })],
);

/** Files of jobs that were given out, each with its version and what its proof said. */
export const givenFiles = pgTable(
  'given_files',
  {
    id: uuid('id').primaryKey().defaultRandom(),
    jobId: uuid('job_id')
      .notNull()
      .references(() => jobs.id, { onDelete: 'cascade' }),
    version: integer('version').notNull(),
    name: text('name').notNull(),
    file: text('file')
      .notNull()
      .references(() => assets.sha256),
    /** The parts that were written; null: all. */
    partIds: text('part_ids').array(),
    proof: jsonb('proof').$type<KeptProof>(),
    givenAt: timestamp('given_at', { withTimezone: true }).notNull().defaultNow(),
    /** Its place among those that were given out together. */
    nth: integer('nth').notNull().default(0),
  },
  (table) => [index('given_files_of_job').on(table.jobId, table.givenAt)],
);

/** Rows of a roster that row workers are asked for together. The document is as the page had it, saved or not. */
export const rowBatches = pgTable('row_batches', {
  id: uuid('id').primaryKey().defaultRandom(),
  document: jsonb('document').$type<Job>().notNull(),
  /** The day that fields of dates are filled with. */
  today: text('today').notNull(),
  askedAt: timestamp('asked_at', { withTimezone: true }).notNull().defaultNow(),
});

/** Each row of a batch with the key of what it comes to. */
export const rowsOfBatch = pgTable(
  'rows_of_batch',
  {
    batch: uuid('batch')
      .notNull()
      .references(() => rowBatches.id, { onDelete: 'cascade' }),
    nth: integer('nth').notNull(),
    rowId: text('row_id').notNull(),
    key: text('key').notNull(),
  },
  (table) => [primaryKey({ columns: [table.batch, table.nth] }), index('rows_of_batch_by_key').on(table.key)],
);

/** What rows came to, by a hash of all that it hangs on: one of a content, whoever prepared it. */
export const preparedRows = pgTable('prepared_rows', {
  key: text('key').primaryKey(),
  /** What it came to; null where it could not be prepared, and `fault` says why. */
  seen: jsonb('seen').$type<RowSeen>(),
  fault: text('fault'),
  /** Counts those that were prepared, so that a page asks for what is new. */
  serial: bigserial('serial', { mode: 'number' }).notNull(),
  usedAt: timestamp('used_at', { withTimezone: true }).notNull().defaultNow(),
});

/** Row workers that are there: each says so every few seconds. */
export const rowWorkers = pgTable('row_workers', {
  id: uuid('id').primaryKey(),
  seenAt: timestamp('seen_at', { withTimezone: true }).notNull().defaultNow(),
});

/** Settings of the service, by name. */
export const settings = pgTable('settings', {
  name: text('name').primaryKey(),
  value: jsonb('value').notNull(),
});
