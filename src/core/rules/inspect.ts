/** All findings of a job. */
import { partTitle } from '../document/part-words';
import type { Part } from '../document/schema';
import { isEmptyBox } from '../geometry/point';
import type { Finding } from '../inspect/finding';
import { Names } from '../inspect/names';
import { foundBy, type Observation, type Rule } from '../inspect/rule';
import type { StepSubject } from '../kinds/step';
import { type Step, stepIn } from '../kinds/steps';
import { isCut } from '../kinds/works';
import type { Memory, Stage } from '../memo';
import { formatLength } from '../units/quantity';
import { cutTo } from '../units/text';
import type { Inspected, JobSubject, PartSubject, Setting } from './rule';
import { JOB_RULES, PART_RULES } from './rules';

type Named = Pick<Rule<never, unknown>, 'code' | 'severity' | 'station'>;

/** A finding before it has its key, and what tells it from others of its code in the part. */
type Draft = { readonly finding: Omit<Finding, 'leftReason' | 'key'>; readonly detail: string };

function draft({ code, severity, station }: Named, found: Observation, partId: string | null): Draft {
  const { sentence, box, memberId, detail, mend } = found;
  return {
    finding: {
      code,
      severity: found.severity ?? severity,
      station,
      sentence,
      partId,
      memberId: memberId ?? null,
      box: box && !isEmptyBox(box) ? box : null,
      mend: mend ?? null,
    },
    detail,
  };
}

type PartInput = { readonly part: Part; readonly ready: Inspected; readonly job: Setting };

/**
 * What is found about one part; the same as long as nothing about it or the job's settings changes. Parts that did not change are the
 * same objects from one document to the next; settings may come as copies.
 */
const PART_FINDINGS: Stage<PartInput & { readonly contentOf: (object: object) => string }, readonly Draft[]> = {
  name: 'findings of a part',
  key: ({ part, ready, job, contentOf }, idOf) =>
    `${idOf(ready)}|${idOf(part)}|${contentOf(job.sheet)}|${contentOf(job.operations)}|${job.machine?.kind ?? ''}|${job.units}`,
  slot: ({ part }) => part.id,
  run: partFindings,
  weigh: (drafts) => 40 * drafts.length,
};

function partFindings({ part, ready, job }: PartInput, memory: Memory): readonly Draft[] {
  const title = partTitle(part);
  const length = (mm: number) => formatLength(mm, job.units);
  const about: PartSubject = {
    part,
    ready,
    job,
    title,
    names: new Names(ready),
    isCut: isCut(part.work, job.operations),
    length,
    memory,
  };
  return PART_RULES.flatMap((of): Draft[] => {
    if (of.about === 'part') return foundBy(of.rules, about).map(({ rule, found }) => draft(rule, found, part.id));
    const note = ready.notes.get(of.kind)?.note ?? null;
    const drawn = (ready.linework as Readonly<Record<string, unknown>>)[of.kind] ?? null;
    const step = stepIn(part, of.kind);
    const ofStep: StepSubject<Step> = { partId: part.id, title, step, part: ready, note, drawn, length };
    return foundBy(of.rules, ofStep).map(({ rule, found }) => draft(rule, found, part.id));
  });
}

/** All findings of a job, in the order of its parts. */
export function inspect(subject: JobSubject): Finding[] {
  const { job, inspected, memory } = subject;
  const reasons = new Map(job.leftAsIs.map((l) => [l.finding, l.reason]));
  const contentOf = (object: object) => memory.of(object, 'content of', () => JSON.stringify(object));
  const drafts = job.parts.flatMap((part) => {
    const ready = inspected.get(part.id);
    return ready ? memory.get(PART_FINDINGS, { part, ready, job, contentOf }) : [];
  });
  const ofJob = JOB_RULES.flatMap((rule) => rule.find(subject).map((found) => draft(rule, found, found.partId)));
  const seen = new Map<string, number>();
  return [...drafts, ...ofJob].map(({ finding, detail }) => {
    const base = cutTo(`${finding.code}:${finding.partId ?? ''}:${detail}`, 280);
    const times = (seen.get(base) ?? 0) + 1;
    seen.set(base, times);
    const key = times === 1 ? base : `${base}#${times}`;
    return { ...finding, key, leftReason: reasons.get(key) ?? null };
  });
}
