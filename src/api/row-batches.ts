/** Rows of a roster that row workers prepare, as the page asks for them and hears of them. */
import { z } from 'zod';
import { pictureSchema } from '../core/job/picture';
import type { RowSeen } from '../core/job/rows';

/** A batch that was asked for: how many rows it has, and how many workers share it. */
export const askedBatchSchema = z.object({ batch: z.uuid(), of: z.int(), workers: z.int() });
/** A batch that was asked for. */
export type AskedBatch = z.output<typeof askedBatchSchema>;

const boxSchema = z.object({ minX: z.number(), minY: z.number(), maxX: z.number(), maxY: z.number() });

/** What a row came to; findings come from the same core, and are taken as they are. */
const rowSeenSchema: z.ZodType<RowSeen> = z.object({
  picture: pictureSchema,
  findings: z.array(z.custom<RowSeen['findings'][number]>((one) => typeof one === 'object' && one !== null)),
  isOnePiece: z.boolean(),
  size: z.object({ width: z.number(), height: z.number() }).nullable(),
  bounds: z.array(z.object({ part: z.string(), box: boxSchema })),
});

/** Rows of a batch that are there, those that are alike together: what they came to, or why they could not be prepared. `after` is to be asked with next. */
export const batchToldSchema = z.object({
  rows: z.array(
    z.object({ rowIds: z.array(z.string()), seen: rowSeenSchema.nullable(), fault: z.string().nullable() }),
  ),
  after: z.int(),
  done: z.int(),
  of: z.int(),
  workers: z.int(),
});
/** What is told of a batch. */
export type BatchTold = z.output<typeof batchToldSchema>;
