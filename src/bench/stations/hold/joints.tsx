/** How the neighbours of a lettering are joined, pair by pair, and where the user says otherwise. */
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { canJoinPair, joinPair, type PairAt } from '@/core/commands/joints';
import type { Lettering, Part } from '@/core/document/schema';
import { LIMITS } from '@/core/limits';
import type { PairAnswer } from '@/core/schema/lettering';
import { formatLength } from '@/core/units/quantity';
import { useListed } from '@/ui/listed';
import type { JointsView } from '@/worker/member-view';
import { dispatch, useBench } from '../../store';
import hold from './hold.module.css';

type Joint = JointsView['joints'][number];

const KIND_WORDS: Readonly<Record<Joint['kind'], string>> = {
  'as is': 'overlap',
  touch: 'touching',
  foot: 'foot',
  tie: 'tie',
  held: 'held',
  apart: 'apart',
};

const ANSWERS: readonly (readonly [how: PairAnswer['how'], word: string])[] = [
  ['touch', 'touching'],
  ['foot', 'by a foot'],
  ['tie', 'by a tie'],
  ['apart', 'left apart'],
];

/** Why a pair is joined as reads best. */
const NO_MORE = `No more is said of pairs here: there may be ${LIMITS.pairAnswers}, of letters with up to ${LIMITS.pairCharacters} characters.`;
/** Pairs listed at first. */
const LISTED = 12;

function How({ part, member, pair }: { part: Part; member: Lettering; pair: PairAt }) {
  const { left, right, at } = pair;
  const answer = member.closeUp?.pairs.find((p) => p.left === left && p.right === right && p.at === at);
  const beside = at === null ? '' : ` at ${at + 1}`;
  return (
    <Form.Select
      size="sm"
      className="w-auto"
      aria-label={`Join ${left} and ${right}${beside}`}
      value={answer?.how ?? ''}
      {...(member.closeUp && !canJoinPair(member.closeUp, pair) && { disabled: true, title: NO_MORE })}
      onChange={(e) => {
        const how = e.target.value as PairAnswer['how'] | '';
        dispatch((job) => joinPair(job, part.id, member.id, pair, how === '' ? null : how));
      }}
    >
      <option value="">{at === null ? 'as reads best' : 'as the others'}</option>
      {ANSWERS.map(([how, word]) => (
        <option key={how} value={how}>
          {word}
        </option>
      ))}
    </Form.Select>
  );
}

function Found({ joints }: { joints: readonly Joint[] }) {
  const unit = useBench((s) => s.job.units);
  const kinds = [...new Set(joints.map((j) => KIND_WORDS[j.kind]))];
  const least = Math.min(...joints.flatMap((j) => (j.kind === 'apart' ? [] : [j.jointMm])));
  return (
    <span className="nf-muted">
      {kinds.join(', ')}
      {least < Infinity && (
        <>
          {' '}
          · <span className="nf-figure">{formatLength(least, unit)}</span>
        </>
      )}
    </span>
  );
}

function PairRow({ part, member, pair }: { part: Part; member: Lettering; pair: JointsView }) {
  const [isOpen, setIsOpen] = useState(false);
  const { left, right, joints, isSpace } = pair;
  return (
    <li>
      <div className={hold.pair}>
        <b>
          {left}
          {isSpace && ' '}
          {right}
        </b>
        {joints.length > 1 ? (
          <Button variant="plain" aria-expanded={isOpen} onClick={() => setIsOpen(!isOpen)}>
            {joints.length} times
          </Button>
        ) : null}
        <Found joints={joints} />
        <How part={part} member={member} pair={{ left, right, at: null }} />
      </div>
      {isOpen && (
        <ul className={hold.pairs}>
          {joints.map((joint, i) => (
            <li key={joint.at} className={hold.pair}>
              <span className="nf-muted">no. {i + 1}</span>
              <Found joints={[joint]} />
              <How part={part} member={member} pair={{ left, right, at: joint.at }} />
            </li>
          ))}
        </ul>
      )}
    </li>
  );
}

/** The pairs of a lettering with how each is joined; of those over spaces the ones that are. */
export function Joints({ part, member, pairs }: { part: Part; member: Lettering; pairs: readonly JointsView[] }) {
  const all = pairs.filter(
    ({ isSpace, joints }) => !isSpace || member.closeUp?.words || joints.some((j) => j.kind !== 'apart'),
  );
  const { shown, more } = useListed(all, LISTED);
  if (all.length === 0) return null;
  return (
    <>
      <ul className={hold.pairs} aria-label="Joints">
        {shown.map((pair) => (
          <PairRow
            key={JSON.stringify([pair.left, pair.right, pair.isSpace])}
            part={part}
            member={member}
            pair={pair}
          />
        ))}
      </ul>
      {more}
    </>
  );
}
