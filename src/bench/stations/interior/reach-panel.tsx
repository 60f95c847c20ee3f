/** What the tool cannot get to, letter by letter, and the way to a tool that can. */
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import type { StepOf } from '@/core/document/schema';
import { NumberField } from '@/ui/fields';
import { formatShare } from '@/ui/figures';
import { Heading } from '@/ui/heading';
import type { HatchView } from '@/worker/hatch-view';
import { bringIntoSight, setLook, useBench } from '../../store';
import { type StepProps, useStep } from '../hold/use-step';
import { ChooseTool } from './choose-tool';
import styles from './interior.module.css';

/** Letters shown until more are asked for. */
const FEW = 5;

type Letter = HatchView['letters'][number];

/** The same letter with the same share is told once, with how often it comes. */
function alike(letters: readonly Letter[]): (Letter & { readonly times: number })[] {
  const kinds = new Map<string, Letter & { times: number }>();
  for (const letter of letters) {
    const key = `${letter.text} ${formatShare(letter.beyond)}`;
    const known = kinds.get(key);
    if (known) known.times++;
    else kinds.set(key, { ...letter, times: 1 });
  }
  return [...kinds.values()];
}

/** What a tool can't reach, letter by letter. */
export function ReachPanel(props: StepProps & { step: StepOf<'hatch'>; hatch: HatchView }) {
  const { step, hatch: fill } = props;
  const { set } = useStep(props, 'hatch');
  const look = useBench((s) => s.look);
  const [all, setAll] = useState(false);
  const [choosing, setChoosing] = useState(false);
  const letters = alike(fill.letters.filter((l) => l.beyond > 0.001));
  const isOver = fill.beyond > step.mostMissed;
  return (
    <>
      <Heading beside={formatShare(fill.beyond)}>Out of reach</Heading>
      {letters.length === 0 ? (
        <p className="nf-small nf-muted mb-2">The tool gets everywhere.</p>
      ) : (
        <ul className={styles.letters} aria-label="Letters by what is out of reach">
          {letters.slice(0, all ? undefined : FEW).map((l, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: the same letter may stand in several places
            <li key={i}>
              <button type="button" onClick={() => bringIntoSight(l.box)} title="Bring it into sight">
                <b>
                  {l.text.trim() || 'shape'}
                  {l.times > 1 && <small> × {l.times}</small>}
                </b>
                <span className={styles.gauge} aria-hidden="true">
                  <span style={{ width: `${Math.min(100, 100 * l.beyond)}%` }} data-over={l.beyond > step.mostMissed} />
                </span>
                <span className="nf-figure">{formatShare(l.beyond)}</span>
              </button>
            </li>
          ))}
        </ul>
      )}
      {letters.length > FEW && (
        <Button variant="word" onClick={() => setAll(!all)}>
          {all ? 'Only the worst' : `All ${letters.length}`}
        </Button>
      )}
      <NumberField
        label="May leave"
        suffix="%"
        value={step.mostMissed}
        scale={100}
        digits={1}
        step={1}
        least={0}
        most={1}
        onChange={(mostMissed) => set({ mostMissed }, 'mostMissed')}
      />
      {isOver && <p className="nf-small text-danger mb-2">This tool leaves more than that.</p>}
      <div className={styles.actions}>
        <Button variant="plain" aria-expanded={choosing} onClick={() => setChoosing(!choosing)}>
          {choosing ? 'Close the tools' : 'Choose a tool'}
        </Button>
        <Button
          variant="plain"
          aria-pressed={look === 'worked'}
          active={look === 'worked'}
          onClick={() => setLook(look === 'worked' ? 'drawing' : 'worked')}
          title="V, while held"
        >
          As filled
        </Button>
      </div>
      {choosing && <ChooseTool {...props} />}
    </>
  );
}
