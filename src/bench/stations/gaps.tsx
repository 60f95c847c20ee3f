/** Closing a brought-in drawing: how many outlines close at which gap, each gap with its size, and what is to be asked. */
import { useId, useMemo } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { memberOf } from '@/core/commands/changed';
import { answerGap, forgetGap } from '@/core/commands/drawings';
import type { Artwork, CloseSettings, Part } from '@/core/document/schema';
import { growBox } from '@/core/geometry/point';
import { LIMITS } from '@/core/limits';
import { formatLength } from '@/core/units/quantity';
import { QuantityField, Switch } from '@/ui/fields';
import { Heading } from '@/ui/heading';
import type { ClosingView, GapView } from '@/worker/view';
import { bringIntoSight, change, dispatch, select, useBench } from '../store';
import styles from './gaps.module.css';

type Props = { readonly part: Part; readonly member: Artwork; readonly closing: ClosingView };

/** How far curves may stray from short lines at first, in mm. */
const USUAL_REFIT_MM = 0.05;
/** Gaps listed one by one. */
const MOST_LISTED = 100;
const HOW_WORDS = {
  snap: 'ends moved together',
  trim: 'cut back to where they cross',
  extend: 'run on until they meet',
  line: 'bridged by a line',
};

const boxOf = ({ from, to, sizeMm }: GapView) =>
  growBox(
    {
      minX: Math.min(from.x, to.x),
      minY: Math.min(from.y, to.y),
      maxX: Math.max(from.x, to.x),
      maxY: Math.max(from.y, to.y),
    },
    Math.max(2, 4 * sizeMm),
  );

function GapRow({ part, member, gap }: { part: Part; member: Artwork; gap: GapView }) {
  const units = useBench((s) => s.job.units);
  const answered = member.close.answers.some((a) => a.gap === gap.key);
  const answer = (how: 'close' | 'leave') =>
    dispatch((job) => answerGap(job, part.id, { memberId: member.id, gap: gap.key, how }));
  return (
    <li className={styles.gap} data-state={gap.state}>
      <button
        type="button"
        className={styles.visit}
        title="Bring it into sight"
        onClick={() => {
          select(part.id, member.id);
          bringIntoSight(boxOf(gap));
        }}
      >
        <span className="nf-figure">{formatLength(gap.sizeMm, units)}</span>{' '}
        <span className="nf-muted nf-small">
          {gap.state === 'closed'
            ? HOW_WORDS[gap.how]
            : gap.state === 'left'
              ? 'left open'
              : gap.state === 'asked'
                ? 'which ends?'
                : 'open'}
        </span>
      </button>
      {answered ? (
        <Button variant="word" onClick={() => dispatch((job) => forgetGap(job, part.id, member.id, gap.key))}>
          Undo this
        </Button>
      ) : (
        <Button variant="word" onClick={() => answer(gap.state === 'closed' ? 'leave' : 'close')}>
          {gap.state === 'closed' ? 'Leave open' : gap.state === 'asked' ? 'Join these' : 'Close'}
        </Button>
      )}
    </li>
  );
}

/** How many gaps close as the least gap to close grows. */
function Slider({ part, member, closing }: Props) {
  const id = useId();
  const units = useBench((s) => s.job.units);
  const sizes = useMemo(
    () => closing.gaps.filter((g) => g.state === 'sure' || g.state === 'closed').map((g) => g.sizeMm),
    [closing],
  );
  const set = (gap: number) =>
    change((job) => {
      const draft = memberOf(job, part.id, member.id);
      if (draft?.kind === 'artwork') {
        draft.close.gap = gap;
        draft.close.findUpTo = Math.max(draft.close.findUpTo, gap);
      }
    }, `gap:${member.id}`);
  const { gap, findUpTo } = member.close;
  const would = sizes.filter((size) => size <= gap).length;
  const bins = Array.from(
    { length: 24 },
    (_, i) => sizes.filter((s) => Math.min(23, Math.floor((24 * s) / findUpTo)) === i).length,
  );
  const most = Math.max(1, ...bins);
  return (
    <>
      <QuantityField
        label="Close gaps up to"
        unit={units}
        value={gap}
        least={0}
        most={LIMITS.gapMostMm}
        stepMm={0.1}
        onChange={set}
      />
      <div className={styles.bins} aria-hidden="true">
        {bins.map((n, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: bins are told apart by their place
          <span key={i} style={{ height: `${(100 * n) / most}%` }} data-on={((i + 0.5) * findUpTo) / 24 <= gap} />
        ))}
      </div>
      <Form.Range
        id={id}
        aria-label="Close gaps up to"
        min={0}
        max={findUpTo}
        step={findUpTo / 200}
        value={Math.min(gap, findUpTo)}
        onChange={(e) => set(Number(Number(e.target.value).toPrecision(3)))}
      />
      <p className="nf-small mb-1" role="status">
        <span className="nf-figure">{would}</span> of <span className="nf-figure">{sizes.length}</span> gap
        {sizes.length === 1 ? '' : 's'} close.
      </p>
      <QuantityField
        label="Look for gaps up to"
        unit={units}
        value={findUpTo}
        least={0.01}
        most={LIMITS.gapMostMm}
        onChange={(mm) =>
          change((job) => {
            const draft = memberOf(job, part.id, member.id);
            if (draft?.kind === 'artwork') draft.close.findUpTo = mm;
          }, `look:${member.id}`)
        }
      />
    </>
  );
}

/** The gaps of a drawing, and what is made of each. */
export function Gaps(props: Props) {
  const { part, member, closing } = props;
  const { gaps, doubled, specks, tees, repeated } = closing;
  const units = useBench((s) => s.job.units);
  const edit = (recipe: (close: CloseSettings) => void) =>
    change((job) => {
      const draft = memberOf(job, part.id, member.id);
      if (draft?.kind === 'artwork') recipe(draft.close);
    }, `refit:${member.id}`);
  const order = { asked: 0, sure: 1, left: 2, closed: 3 };
  const listed = [...gaps].sort((a, b) => order[a.state] - order[b.state] || b.sizeMm - a.sizeMm);
  const open = gaps.filter((g) => g.state === 'sure').length;
  const asked = gaps.filter((g) => g.state === 'asked').length;
  return (
    <section aria-label={`Closing ${member.name}`}>
      <Heading beside={open + asked > 0 ? `${open + asked} to look at` : 'nothing to look at'}>
        <span className="text-break">{member.name || 'Drawing'}</span>
      </Heading>
      {gaps.length > 0 ? (
        <Slider {...props} />
      ) : (
        <p className="nf-small mb-1">There are no gaps up to {formatLength(member.close.findUpTo, units)}.</p>
      )}
      <Switch
        label="Make curves of short lines"
        on={member.close.refit !== null}
        onChange={(on) =>
          edit((close) => {
            close.refit = on ? USUAL_REFIT_MM : null;
          })
        }
      />
      {member.close.refit !== null && (
        <QuantityField
          label="Straying at most"
          unit={units}
          value={member.close.refit}
          least={0.001}
          most={LIMITS.gapMostMm}
          stepMm={0.01}
          digits={3}
          onChange={(mm) =>
            edit((close) => {
              close.refit = mm;
            })
          }
        />
      )}
      {repeated > 0 && (
        <p className="nf-small mb-1">
          <span className="nf-figure">{repeated}</span> outline{repeated === 1 ? ' was' : 's were'} drawn again and{' '}
          {repeated === 1 ? 'is' : 'are'} left out.
        </p>
      )}
      {(doubled > 0 || specks > 0 || tees > 0) && (
        <p className="nf-small mb-1">
          {doubled > 0 && (
            <>
              <span className="nf-figure">{doubled}</span> line{doubled === 1 ? ' was' : 's were'} drawn twice and{' '}
              {doubled === 1 ? 'is' : 'are'} cut once.{' '}
            </>
          )}
          {tees > 0 && (
            <>
              <span className="nf-figure">{tees}</span> end{tees === 1 ? ' meets' : 's meet'} the line
              {tees === 1 ? ' it runs' : 's they run'} into.{' '}
            </>
          )}
          {specks > 0 && (
            <>
              <span className="nf-figure">{specks}</span> speck{specks === 1 ? ' is' : 's are'} left out.
            </>
          )}
        </p>
      )}
      {listed.length > 0 && (
        <ol className={styles.gaps} aria-label="Gaps">
          {listed.slice(0, MOST_LISTED).map((gap) => (
            <GapRow key={gap.key} part={part} member={member} gap={gap} />
          ))}
        </ol>
      )}
      {listed.length > MOST_LISTED && (
        <p className="nf-muted nf-small">And {(listed.length - MOST_LISTED).toLocaleString('en')} more.</p>
      )}
    </section>
  );
}
