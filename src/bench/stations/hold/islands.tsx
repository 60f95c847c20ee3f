/** The islands of a part, how each is held, and what is done about it. */
import { useEffect, useRef } from 'react';
import Button from 'react-bootstrap/Button';
import type { Part } from '@/core/document/schema';
import { sticks } from '@/core/document/sticks';
import { startSentence } from '@/core/inspect/names';
import { formatLength, type LengthUnit } from '@/core/units/quantity';
import { Heading } from '@/ui/heading';
import type { IslandView } from '@/worker/bridge-view';
import type { PartView } from '@/worker/view';
import styles from '../../bench.module.css';
import { bridgeAll, bridgeOne, leaveIsland } from '../../bridge-edits';
import { bringIntoSight, chooseIsland, useBench } from '../../store';
import { AddByHand } from './bridges';
import hold from './hold.module.css';
import { type StepProps, useStep } from './use-step';

const countWords = (n: number): string => (n === 1 ? '1 bridge' : `${n} bridges`);

function heldWords(island: IslandView, unit: LengthUnit): string {
  const by = island.how === 'hand' ? ', by hand' : '';
  return `${countWords(island.bridgeCount)}, ${formatLength(island.widthMm, unit)}${by}`;
}

function looseWords({ trouble }: IslandView): string {
  if (trouble === 'too small') return 'too small for a bridge';
  if (trouble === 'no way') return 'no place for a bridge';
  return 'will drop out';
}

/** In a list of them, “middle of O” is enough. */
const shortName = (name: string): string => name.replace(/^the /, '').replace(/^a /, '');

function LetterPicture({ island }: { island: IslandView }) {
  const { minX, minY, maxX, maxY } = island.letterBox;
  const [w, h] = [Math.max(1e-6, maxX - minX), Math.max(1e-6, maxY - minY)];
  return (
    <svg viewBox={`${minX - w * 0.06} ${-maxY - h * 0.06} ${w * 1.12} ${h * 1.12}`} aria-hidden="true">
      <path d={island.d} transform="scale(1 -1)" fill="currentColor" fillRule="evenodd" />
    </svg>
  );
}

function Island({ part, island, stays }: { part: Part; island: IslandView; stays: boolean }) {
  const unit = useBench((s) => s.job.units);
  const isChosen = useBench((s) => s.atIsland?.letter === island.letter && s.atIsland.island === island.island);
  const row = useRef<HTMLLIElement>(null);
  const key = { letter: island.letter, island: island.island };
  useEffect(() => {
    if (isChosen) row.current?.scrollIntoView({ block: 'nearest' });
  }, [isChosen]);
  return (
    <li ref={row} className={`${styles.card} ${hold.island}`} data-chosen={isChosen}>
      <button
        type="button"
        className={hold.choose}
        aria-pressed={isChosen}
        onClick={() => {
          chooseIsland(isChosen ? null : { ...key, nth: island.bridgeCount > 0 ? 0 : null });
          if (!isChosen) bringIntoSight(island.letterBox);
        }}
      >
        <LetterPicture island={island} />
        <span>
          {startSentence(shortName(island.name))}
          <span className={island.hangs || stays ? hold.fine : hold.bad}>
            {stays ? 'stays on its backing' : island.hangs ? heldWords(island, unit) : looseWords(island)}
          </span>
        </span>
      </button>
      {!stays &&
        (island.hangs ? (
          <span className={hold.good} role="img" aria-label="held">
            ✓
          </span>
        ) : (
          !part.locked &&
          island.trouble === null && (
            <Button variant="plain" onClick={() => bridgeOne(part.id, key)}>
              Bridge
            </Button>
          )
        ))}
      {isChosen && island.bridgeCount > 0 && !part.locked && (
        <Button variant="word" onClick={() => leaveIsland(part.id, key)} title="It drops out when it is cut">
          Leave without
        </Button>
      )}
    </li>
  );
}

/** What is held and what is not, in a few words. */
function islandWords({ keys, islandsHeld }: PartView['bridges'], stays: boolean): string {
  if (stays) return `${keys.length} stay on their backing`;
  const loose = keys.length - islandsHeld;
  const words = [`${islandsHeld} held`];
  if (loose > 0) words.push(`${loose} will drop out`);
  return words.join(' · ');
}

const SMALL_WORDS = { ask: 'not bridged yet', bridge: '', fill: 'left uncut', drop: 'will drop out' } as const;

/** Islands that nobody would miss: what becomes of them, or the question. */
function SmallIslands(props: StepProps) {
  const unit = useBench((s) => s.job.units);
  const { step, set } = useStep(props, 'bridge');
  const { count, widestMm } = props.view.bridges.small;
  if (!step || count === 0) return null;
  return (
    <div className={hold.small}>
      <p className="nf-small m-0">
        {count === 1 ? '1 small one' : `${count} small ones`}, up to {formatLength(widestMm, unit)} wide:{' '}
        {SMALL_WORDS[step.small]}.
      </p>
      {step.small === 'ask' && !props.part.locked && (
        <div className={styles.buttons}>
          <Button
            variant="plain"
            onClick={() => set({ small: 'fill' })}
            title="Their edges are not cut: the letter is open there"
          >
            Leave them uncut
          </Button>
          <Button variant="plain" onClick={() => set({ small: 'bridge' })}>
            Bridge them
          </Button>
        </div>
      )}
    </div>
  );
}

/** The islands of a part, and what holds each. */
export function Islands({ part, view }: { part: Part; view: PartView }) {
  const { bridges } = view;
  const stays = sticks(part);
  if (bridges.keys.length === 0 && bridges.small.count === 0)
    return part.keep === 'outside' ? (
      <section aria-label="Islands">
        <Heading>Islands</Heading>
        <p className="nf-small nf-muted">None: no letter encloses a piece that could drop out.</p>
        {!bridges.isOn && !part.locked && <AddByHand />}
      </section>
    ) : null;
  const open = bridges.keys.length - bridges.islandsHeld;
  return (
    <section aria-label="Islands">
      <Heading beside={islandWords(bridges, stays)}>Islands</Heading>
      {!stays && open > 0 && view.loose === 0 && (
        <p className="nf-small nf-muted">Everything else hangs together already.</p>
      )}
      <ul className={`list-unstyled m-0 ${hold.islands}`}>
        {bridges.islands.map((island) => (
          <Island key={`${island.letter}/${island.island}`} part={part} island={island} stays={stays} />
        ))}
        {bridges.keys.length > bridges.islands.length && (
          <li className="nf-muted nf-small">and {bridges.keys.length - bridges.islands.length} more</li>
        )}
      </ul>
      {!stays && <SmallIslands part={part} view={view} />}
      {!stays && !part.locked && open > 0 && (!bridges.isOn || bridges.islandsLeft > 0 || hasEmptied(part)) && (
        <Button variant="primary" className="w-100 mt-1" onClick={() => bridgeAll(part.id)}>
          Bridge every island
        </Button>
      )}
    </section>
  );
}

/** Whether an island is in hand from which every bridge was taken. */
function hasEmptied(part: Part): boolean {
  const step = part.steps.find((s) => s.kind === 'bridge');
  return (
    step?.kind === 'bridge' &&
    step.islands.some(
      (s) => s.how === 'hand' && !step.pinned.some((p) => p.letter === s.letter && p.island === s.island),
    )
  );
}
