/** What rules about parts and whole jobs speak of, and how what they find is mended. */
import type { BridgesSeen } from '../commands/bridges';
import type { MiddleOf } from '../commands/changed';
import type { Job, Member, Operation, Part, Work } from '../document/schema';
import type { Drawable } from '../geometry/drawable';
import type { Box } from '../geometry/point';
import type { MendArgs } from '../inspect/finding';
import type { Names } from '../inspect/names';
import type { Observation, Rule } from '../inspect/rule';
import type { Strength } from '../inspect/strength';
import type { WorkedPart } from '../kinds/work';
import type { Memory } from '../memo';
import type { PreparedMember } from '../prepare/prepared';
import type { LetterReadability } from '../prepare/readability';

/** A part made ready, its strength, and what is drawn of it. */
export type Inspected = WorkedPart & {
  readonly strength: Strength;
  /** How readable its letters are, of those that something was done to. */
  readonly readability: readonly LetterReadability[];
};

/** The settings of a job that findings about a part hang on. */
export type Setting = Pick<Job, 'sheet' | 'machine' | 'operations' | 'units'>;

/** What a rule about one part speaks of. */
export type PartSubject = {
  readonly part: Part;
  readonly ready: Inspected;
  readonly job: Setting;
  /** What the part is called in a sentence. */
  readonly title: string;
  readonly names: Names;
  /** Whether it comes out of the stock, or may yet. */
  readonly isCut: boolean;
  /** A length in the job's unit. */
  readonly length: (mm: number) => string;
  readonly memory: Memory;
};

/** What an operation draws, and of which part and what of it, and what of its cuts had no room. */
export type OperationDrawn = {
  readonly operation: Operation;
  readonly cuts: readonly {
    readonly partId: string;
    readonly box: Box;
    readonly lacks: readonly ('lead' | 'tabs')[];
  }[];
  readonly drawn: readonly { readonly partId: string; readonly what: Work['what']; readonly drawable: Drawable }[];
};

/** What a rule about a whole job speaks of. */
export type JobSubject = {
  readonly job: Job;
  /** An entry for every part that is not hidden. */
  readonly inspected: ReadonlyMap<string, Inspected>;
  readonly drawn: readonly OperationDrawn[];
  readonly memory: Memory;
};

/** What was computed of a job, as far as mending asks for it. */
export type Seen = {
  readonly middleOf: MiddleOf;
  /** Height of a capital of a lettering, in mm. */
  readonly capHeightOf: (partId: string, memberId: string) => number | undefined;
  readonly bridgesOf: (partId: string) => BridgesSeen;
};

/** How a finding is mended in one press; `partId` is '' for one that is about no part. */
export type Mend<A extends MendArgs> = {
  readonly words: string;
  /** The words for several at once, where these are others. */
  readonly all?: string;
  readonly apply: (job: Job, partId: string, args: A, seen: Seen) => Job;
};

/** A mend, whatever it is told. */
export type AnyMend = Mend<MendArgs>;

/** A rule about one part, its mend typed by what its findings say for it. */
export const partRule = <A extends MendArgs = MendArgs>(
  rule: Rule<PartSubject, Mend<A>, A>,
): Rule<PartSubject, AnyMend> => rule as unknown as Rule<PartSubject, AnyMend>;

/** A rule about a job; each of its findings names the part it is about, or none. */
export type JobRule = Omit<Rule<JobSubject, AnyMend>, 'find'> & {
  readonly find: (subject: JobSubject) => readonly (Observation & { readonly partId: string | null })[];
};

/** A rule about a job as a whole. */
export const jobRule = <A extends MendArgs = MendArgs>(
  rule: Omit<JobRule, 'mend'> & { readonly mend?: Mend<A> },
): JobRule => rule as unknown as JobRule;

/** Something found about each member it is true of. */
export const ofMembers = (
  { part, ready }: PartSubject,
  find: (
    member: Member,
    prepared: PreparedMember,
  ) => (Omit<Observation, 'detail' | 'memberId'> & { detail?: string }) | null,
): Observation[] =>
  part.members.flatMap((member, i) => {
    const prepared = ready.members[i];
    const found = prepared && find(member, prepared);
    return found ? [{ detail: member.id, box: prepared.box, ...found, memberId: member.id }] : [];
  });
