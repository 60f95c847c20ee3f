/** Steps that hold a part together and make it strong: thickening, bars, ties. */
import { useId } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { TieAnswer } from '@/core/document/schema';
import { startSentence } from '@/core/inspect/names';
import { LIMITS } from '@/core/limits';
import { Choice, QuantityField, Row, Switch } from '@/ui/fields';
import type { UntiedView } from '@/worker/view';
import styles from '../../bench.module.css';
import { measureOf } from '../../seen';
import { bringIntoSight, useBench } from '../../store';
import { type StepProps, useStep } from './use-step';

const CORNERS = [
  { value: 'round', word: 'round' },
  { value: 'mitre', word: 'pointed', title: 'Edges drawn out until they meet' },
  { value: 'square', word: 'cut off', title: 'Corners cut off square' },
] as const;

/** The panel of thickening. */
export function Thicken(props: StepProps) {
  const unit = useBench((s) => s.job.units);
  const { step, switched, at, edit, turn } = useStep(props, 'thicken');
  const id = useId();
  const most = Math.max(1, Math.round(measureOf(useBench.getState().job, props.view).capHeightMm / 10));
  const fine = unit === 'mm' ? 0.05 : 25.4 / 512;
  const set = (by: number) =>
    edit((s) => {
      s.by = by;
    }, 'by');
  return (
    <>
      <Switch label="Thicken or thin" {...switched} onChange={turn} />
      {step && (
        <>
          <Form.Range
            id={id}
            aria-label="Thicken by"
            min={-most}
            max={2 * most}
            step={fine}
            value={step.by}
            onChange={(e) => set(Math.round(Number(e.target.value) * 1e4) / 1e4)}
          />
          <QuantityField
            label="By"
            unit={unit}
            {...at('by')}
            least={-LIMITS.offsetMostMm}
            most={LIMITS.offsetMostMm}
            stepMm={fine}
            onChange={set}
          />
          <Choice
            label="Corners"
            {...at('corners')}
            options={CORNERS}
            onChange={(corners) =>
              edit((s) => {
                s.corners = corners;
              })
            }
          />
          {step.by > 0 && (
            <Switch
              label="Keep holes open"
              on={step.holesOpen !== null}
              mixed={at('holesOpen').mixed}
              onChange={(on) =>
                edit((s) => {
                  s.holesOpen = on ? Math.max(0.5, useBench.getState().job.sheet.leastWidth ?? 1.2) : null;
                })
              }
            />
          )}
          {step.by > 0 && step.holesOpen !== null && (
            <QuantityField
              label="At least"
              unit={unit}
              value={step.holesOpen}
              mixed={at('holesOpen').mixed}
              least={0}
              most={LIMITS.offsetMostMm}
              stepMm={unit === 'mm' ? 0.1 : 25.4 / 128}
              onChange={(mm) =>
                edit((s) => {
                  s.holesOpen = mm;
                }, 'holes')
              }
            />
          )}
        </>
      )}
    </>
  );
}

const ENDS = [
  { value: 'square', word: 'square' },
  { value: 'round', word: 'round' },
] as const;

/** The panel of a bar. */
export function Bar(props: StepProps) {
  const unit = useBench((s) => s.job.units);
  const { step, switched, at, set, turn } = useStep(props, 'bar');
  const small = unit === 'mm' ? 0.5 : 25.4 / 64;
  return (
    <>
      <Switch
        label="Bar along the words"
        {...switched}
        onChange={turn}
        note={step ? undefined : 'A base they stand in, or a bar through them; as long as they are.'}
      />
      {step && (
        <>
          <Choice
            label="Where"
            {...at('at')}
            options={[
              { value: 'under', word: 'under', title: 'The letters stand in it' },
              { value: 'through', word: 'through', title: 'It runs through their middle' },
            ]}
            onChange={(at) => set({ at })}
          />
          <QuantityField
            label="Thickness"
            unit={unit}
            {...at('height')}
            least={0.1}
            most={LIMITS.sheetMostMm}
            stepMm={small}
            onChange={(height) => set({ height }, 'height')}
          />
          {step.at === 'under' && (
            <QuantityField
              label="Overlap"
              unit={unit}
              {...at('overlap')}
              least={0}
              most={1000}
              stepMm={small / 5}
              onChange={(overlap) => set({ overlap }, 'overlap')}
            />
          )}
          <QuantityField
            label="Beyond the ends"
            unit={unit}
            {...at('beyond')}
            least={-1000}
            most={1000}
            stepMm={small * 2}
            onChange={(beyond) => set({ beyond }, 'beyond')}
          />
          <Choice label="Ends" {...at('ends')} options={ENDS} onChange={(ends) => set({ ends })} />
        </>
      )}
    </>
  );
}

const ANSWERS: readonly { readonly value: TieAnswer['how']; readonly words: string }[] = [
  { value: 'tie', words: 'tied' },
  { value: 'move', words: 'moved until it touches' },
  { value: 'grow', words: 'enlarged until it touches' },
  { value: 'leave', words: 'left as a piece of its own' },
];

function LoosePiece({
  piece,
  answer,
  onAnswer,
  onFree,
}: {
  piece: UntiedView;
  answer: TieAnswer | undefined;
  onAnswer: (how: TieAnswer['how']) => void;
  onFree: () => void;
}) {
  const byHand = answer !== undefined && (answer.x !== null || answer.turn !== null);
  return (
    <li className={styles.card}>
      <div className="d-flex justify-content-between gap-2">
        <span>{startSentence(piece.name)}</span>
        <Button variant="word" onClick={() => bringIntoSight(piece.box)}>
          Show
        </Button>
      </div>
      <Form.Select
        size="sm"
        aria-label={`What holds ${piece.name}`}
        value={answer?.how ?? 'tie'}
        onChange={(e) => onAnswer(e.target.value as TieAnswer['how'])}
      >
        {ANSWERS.map((a) => (
          <option key={a.value} value={a.value}>
            {a.words}
          </option>
        ))}
      </Form.Select>
      {byHand && (
        <Button variant="word" onClick={onFree}>
          Placed by hand; find the best place again
        </Button>
      )}
    </li>
  );
}

/** Pieces shown one by one before the list is cut short. */
const PIECES_SHOWN = 60;

/** The panel of ties. */
export function Ties(props: StepProps) {
  const unit = useBench((s) => s.job.units);
  const { step, switched, at, edit, set, turn } = useStep(props, 'tie');
  // Of several the pieces are answered for one by one.
  const untied = props.also ? [] : props.view.untied;
  const answer = (piece: string, change: (a: TieAnswer) => void) =>
    edit((s) => {
      let known = s.answers.find((a) => a.piece === piece);
      if (!known) {
        known = { piece, how: 'tie', x: null, y: null, turn: null };
        s.answers.push(known);
      }
      change(known);
      s.answers = s.answers.filter((a) => a.how !== 'tie' || a.x !== null || a.turn !== null);
    });
  const small = unit === 'mm' ? 0.1 : 25.4 / 128;
  return (
    <>
      <Switch
        label="Tie what is loose"
        {...switched}
        onChange={turn}
        note={step ? undefined : 'Short strips from each loose piece to its nearest neighbour.'}
      />
      {step && (
        <>
          <QuantityField
            label="Width"
            unit={unit}
            {...at('width')}
            least={0.05}
            most={1000}
            stepMm={small}
            onChange={(width) => set({ width }, 'width')}
          />
          <QuantityField
            label="Overlap"
            unit={unit}
            {...at('overlap')}
            least={0.01}
            most={1000}
            stepMm={small}
            onChange={(overlap) => set({ overlap }, 'overlap')}
          />
          <Choice label="Ends" {...at('ends')} options={ENDS} onChange={(ends) => set({ ends })} />
          <Choice
            label="Direction"
            {...at('direction')}
            options={[
              { value: 'any', word: 'best' },
              { value: 'upright', word: 'upright' },
              { value: 'level', word: 'level' },
            ]}
            onChange={(direction) => set({ direction })}
          />
          {untied.length > 0 && (
            <Row label="Loose pieces">
              <span className="nf-figure">{untied.length}</span>
            </Row>
          )}
          <ul className="list-unstyled m-0" aria-label="Loose pieces">
            {untied.slice(0, PIECES_SHOWN).map((piece) => (
              <LoosePiece
                key={piece.key}
                piece={piece}
                answer={step.answers.find((a) => a.piece === piece.key)}
                onAnswer={(how) =>
                  answer(piece.key, (a) => {
                    a.how = how;
                  })
                }
                onFree={() =>
                  answer(piece.key, (a) => {
                    a.x = a.y = a.turn = null;
                  })
                }
              />
            ))}
            {untied.length > PIECES_SHOWN && (
              <li className="nf-muted nf-small">and {untied.length - PIECES_SHOWN} more, tied as is best</li>
            )}
          </ul>
        </>
      )}
    </>
  );
}
