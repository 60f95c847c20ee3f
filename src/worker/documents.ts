/**
 * Documents on their way to the worker. One is sent against the one sent before it: parts that are the same objects are named,
 * and stay the same objects at the other end, so that nothing about them is asked again.
 */
import type { Job, Part } from '../core/document/schema';

/** A document against another one, by their numbers. */
export type DocumentUpdate = {
  readonly serial: number;
  /** The document it is told against; null when it is told whole. */
  readonly base: number | null;
  readonly withoutParts: Omit<Job, 'parts'>;
  /** Each part, or where it stands in the other document. */
  readonly parts: readonly (Part | number)[];
};

/** The page's end: what was sent last. */
export class DocumentSender {
  private last: { readonly serial: number; readonly job: Job } | null = null;

  /** The number of a document, and what tells it to the other end; null when that has it. */
  send(job: Job): { readonly serial: number; readonly update: DocumentUpdate | null } {
    const { last } = this;
    if (last?.job === job) return { serial: last.serial, update: null };
    const serial = (last?.serial ?? 0) + 1;
    this.last = { serial, job };
    const places = new Map(last?.job.parts.map((part, i) => [part, i]));
    const { parts, ...withoutParts } = job;
    return {
      serial,
      update: {
        serial,
        base: last?.serial ?? null,
        withoutParts: withoutParts,
        parts: parts.map((part) => places.get(part) ?? part),
      },
    };
  }
}

/** Documents that may still be asked about: a question names one that was sent just before it. */
const HELD = 16;

/** The worker's end: the newest documents. */
export class Documents {
  private readonly documents = new Map<number, Job>();

  hold({ serial, base, withoutParts, parts }: DocumentUpdate): void {
    const before = base === null ? undefined : this.documents.get(base);
    const whole = parts.map((part) => (typeof part === 'number' ? before?.parts[part] : part));
    if (whole.some((part) => part === undefined)) throw new Error('a document was told against one that is not held');
    this.documents.set(serial, { ...withoutParts, parts: whole as Part[] });
    const oldest = this.documents.keys().next().value;
    if (this.documents.size > HELD && oldest !== undefined) this.documents.delete(oldest);
  }

  /** The document of a number. */
  of(serial: number): Job {
    const job = this.documents.get(serial);
    if (!job) throw new Error('a question was asked about a document that is no longer held');
    return job;
  }
}
