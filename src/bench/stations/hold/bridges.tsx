/** How the islands of a part are bridged, all of them and the one that is chosen. */
import Button from 'react-bootstrap/Button';
import type { StepOf } from '@/core/document/schema';
import { sticks } from '@/core/document/sticks';
import { startSentence } from '@/core/inspect/names';
import { formatLength } from '@/core/units/quantity';
import { Choice, NumberField, QuantityField, Switch } from '@/ui/fields';
import { Heading } from '@/ui/heading';
import type { BridgeView, IslandView } from '@/worker/bridge-view';
import styles from '../../bench.module.css';
import {
  chosenBridge,
  copyToSameLetters,
  pin,
  placeBridge,
  removeChosenBridge,
  setIslandCount,
  unpin,
} from '../../bridge-edits';
import { chooseIsland, setPointing, useBench } from '../../store';
import { CompareBridges } from './compare-bridges';
import { type StepProps, shownIn, useStep } from './use-step';

type BridgeStep = StepOf<'bridge'>;

const DIRECTIONS = [
  { value: 'any', word: 'any', title: 'As is best at each place' },
  { value: 'upright', word: 'upright', title: 'Upright in the letter' },
  { value: 'level', word: 'level', title: 'Level in the letter' },
  { value: 'stroke', word: 'stroke', title: 'Square across the stroke' },
] as const;

const COUNTS = [
  { value: '0', word: 'auto', title: 'One, or a pair where the island is large or heavy' },
  { value: '1', word: '1' },
  { value: '2', word: '2' },
  { value: '3', word: '3' },
  { value: '4', word: '4' },
] as const;

const SIDES = [
  { value: 'straight', word: 'straight' },
  { value: 'waisted', word: 'waisted', title: 'Wider where they meet the edges' },
] as const;

const JOINTS = [
  { value: 'square', word: 'square' },
  { value: 'filleted', word: 'filleted', title: 'Rounded into the edges' },
] as const;

const ALIKE = [
  { value: 'alike', word: 'alike', title: 'The same letter has the same bridges everywhere' },
  { value: 'own', word: 'each its own' },
] as const;

const SMALL = [
  { value: 'ask', word: 'ask', title: 'They are told of, and not bridged until it is decided' },
  { value: 'bridge', word: 'bridge', title: 'Bridged like the others' },
  { value: 'fill', word: 'uncut', title: 'Their edges are not cut: the letter is open there' },
  { value: 'drop', word: 'drop', title: 'Cut, and left to drop out' },
] as const;

const FINE_MM = 0.1;
const FINE_IN_MM = 25.4 / 128;

/** Puts the next bridge where the sheet is pressed. */
export function AddByHand() {
  const pointing = useBench((s) => s.pointing === 'bridge');
  return (
    <Button
      variant="plain"
      active={pointing}
      aria-pressed={pointing}
      title="Then press on a gap of a letter, on the sheet"
      onClick={() => setPointing(pointing ? null : 'bridge')}
    >
      {pointing ? 'Press on a gap …' : 'Add by hand'}
    </Button>
  );
}

/** The panel of bridges. */
export function Bridges(props: StepProps) {
  const { part, view } = props;
  const unit = useBench((s) => s.job.units);
  const least = useBench((s) => s.job.sheet.leastWidth) ?? 0;
  const { step, switched, at, set, turn } = useStep(props, 'bridge');
  const isAlone = !props.also;
  if (isAlone && sticks(part)) return null;
  if (!step) return isAlone ? null : <Switch label="Bridge the islands" {...switched} onChange={turn} />;
  const fine = unit === 'mm' ? FINE_MM : FINE_IN_MM;
  return (
    <section aria-label="Bridges">
      <Heading beside={isAlone ? `readable ${Math.round(view.bridges.readability)} %` : undefined}>Bridges</Heading>
      <QuantityField
        label="Width"
        unit={unit}
        {...at('width')}
        least={0.1}
        most={1000}
        stepMm={fine}
        onChange={(width) => set({ width }, 'width')}
      />
      {step.width < least && (
        <p className="nf-small nf-muted">Made {formatLength(least, unit)} wide, the least for this material.</p>
      )}
      <Choice
        label="Direction"
        {...at('direction')}
        options={DIRECTIONS}
        onChange={(direction) => set({ direction })}
      />
      <Choice
        label="How many"
        value={String(step.count) as (typeof COUNTS)[number]['value']}
        mixed={at('count').mixed}
        options={COUNTS}
        onChange={(count) => set({ count: Number(count) })}
      />
      <Choice label="Sides" {...at('sides')} options={SIDES} onChange={(sides) => set({ sides })} />
      {step.sides === 'straight' && (
        <Choice label="Joints" {...at('joints')} options={JOINTS} onChange={(joints) => set({ joints })} />
      )}
      <Choice
        label="Same letters"
        value={step.alike ? 'alike' : 'own'}
        mixed={at('alike').mixed}
        options={ALIKE}
        onChange={(alike) => set({ alike: alike === 'alike' })}
      />
      {step.direction !== 'upright' && (
        <Switch
          label="At shared heights"
          on={step.level}
          mixed={at('level').mixed}
          onChange={(level) => set({ level })}
          note={step.level ? undefined : 'Bridges of neighbours lie in one line.'}
        />
      )}
      <Switch
        label="Spare what tells letters apart"
        on={step.reads}
        mixed={at('reads').mixed}
        onChange={(reads) => set({ reads })}
        note={step.reads ? undefined : 'Bridges keep off the bar of an e, the bowl of a 9, and the like.'}
      />
      <Choice label="Small islands" {...at('small')} options={SMALL} onChange={(small) => set({ small })} />
      <Switch
        label="Lean with italics"
        on={step.slanted}
        mixed={at('slanted').mixed}
        onChange={(slanted) => set({ slanted })}
      />
      {shownIn(props).some((shown) => !shown.part.locked) && (
        <div className={styles.buttons}>
          {isAlone && <AddByHand />}
          <Button variant="plain" onClick={() => turn(false)} title="What was placed by hand is kept for later">
            Take all out
          </Button>
        </div>
      )}
      {isAlone && <ThisIsland {...props} step={step} />}
      {isAlone && <CompareBridges {...props} step={step} />}
    </section>
  );
}

function ThisIsland({ part, view, step }: StepProps & { step: BridgeStep }) {
  const at = useBench((s) => s.atIsland);
  if (!at || part.locked) return null;
  const island = view.bridges.islands.find((i) => i.letter === at.letter && i.island === at.island);
  const bridge = chosenBridge(view, at);
  return (
    <>
      {island && <IslandChosen part={part} view={view} step={step} island={island} />}
      {bridge && <BridgeChosen part={part} view={view} bridge={bridge} />}
    </>
  );
}

function IslandChosen({ part, view, step, island }: StepProps & { step: BridgeStep; island: IslandView }) {
  const key = { letter: island.letter, island: island.island };
  const own = step.islands.find((s) => s.letter === key.letter && s.island === key.island)?.count ?? null;
  const same = view.bridges.keys.filter((k) => k.text === island.text && k.island === island.island).length;
  const byHand = island.how === 'hand';
  return (
    <>
      <Heading beside={`readable ${Math.round(island.readability)} %`}>{startSentence(island.name)}</Heading>
      {!byHand && (
        <Choice
          label="How many"
          value={own === null ? 'all' : String(own)}
          options={[{ value: 'all', word: 'as all' }, ...COUNTS.slice(1)]}
          onChange={(count) => setIslandCount(part.id, key, count === 'all' ? null : Number(count))}
        />
      )}
      <div className={styles.buttons}>
        {byHand ? (
          <Button
            variant="plain"
            onClick={() => unpin(part.id, key)}
            title="Its bridges are placed automatically again"
          >
            Let go
          </Button>
        ) : (
          island.bridgeCount > 0 && (
            <Button
              variant="plain"
              onClick={() => pin(part.id, key)}
              title="Its bridges stay as they lie on the letter"
            >
              Pin
            </Button>
          )
        )}
        {island.text !== '' && same > 1 && island.bridgeCount > 0 && (
          <Button variant="plain" onClick={() => copyToSameLetters(part.id, key)}>
            Copy to all {same} of {island.text}
          </Button>
        )}
      </div>
    </>
  );
}

function BridgeChosen({ part, view, bridge }: StepProps & { bridge: BridgeView }) {
  const unit = useBench((s) => s.job.units);
  const at = useBench((s) => s.atIsland);
  const all = view.bridges.bridges;
  const siblings = all.filter((b) => b.letter === bridge.letter && b.island === bridge.island);
  const nth = siblings.indexOf(bridge);
  const place = (recipe: Parameters<typeof placeBridge>[3], merge: string) =>
    placeBridge(part.id, bridge, all, recipe, merge);
  return (
    <>
      <Heading beside={bridge.pinnedIndex === null ? 'automatic' : 'by hand'}>
        {siblings.length > 1 ? `Bridge ${nth + 1} of ${siblings.length}` : 'This bridge'}
      </Heading>
      <QuantityField
        label="Width"
        unit={unit}
        value={bridge.width}
        least={0.1}
        most={1000}
        stepMm={unit === 'mm' ? FINE_MM : FINE_IN_MM}
        onChange={(width) =>
          place((pinned) => {
            pinned.width = width;
          }, 'width')
        }
      />
      <NumberField
        label="Turn"
        suffix="°"
        value={bridge.own.turn}
        least={-360}
        most={360}
        step={1}
        digits={1}
        onChange={(turn) =>
          place((pinned) => {
            pinned.turn = turn;
          }, 'turn')
        }
      />
      <div className={styles.buttons}>
        {siblings.length > 1 && at && (
          <Button variant="plain" onClick={() => chooseIsland({ ...at, nth: (nth + 1) % siblings.length })}>
            Next bridge
          </Button>
        )}
        <Button variant="plain" onClick={() => removeChosenBridge()}>
          Delete bridge
        </Button>
      </div>
    </>
  );
}
