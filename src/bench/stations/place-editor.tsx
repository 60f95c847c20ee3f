/** Exact place and size of what is chosen: a member, a part, or several parts as one. Measured on what is cut or drawn. */
import { FlipHorizontal2, Lock, LockOpen } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { setOverallWidth } from '@/core/commands/overall';
import { SIZED_ALONG, STAYS_AS_SET } from '@/core/document/sizes';
import { boxHeight, boxWidth, isEmptyBox } from '@/core/geometry/point';
import { LIMITS } from '@/core/limits';
import { NumberField, QuantityField, Switch } from '@/ui/fields';
import { Heading } from '@/ui/heading';
import styles from '../bench.module.css';
import { useBeside } from '../beside';
import {
  chosenBox,
  chosenIn,
  chosenWords,
  isMirrored,
  isTurned,
  mirrorNow,
  moveTo,
  shapeInHand,
  sizeBy,
  sizeTo,
  stretchTo,
  turnOf,
  turnTo,
} from '../chosen';
import { dispatch, freeProportions, sizeEverything, useBench } from '../store';
import { OnSheet } from './sheets-editor';

const clean = (mm: number): number => Math.round(mm * 1e4) / 1e4;

/** Place and size of what is chosen, in numbers. */
export function PlaceEditor() {
  const selection = useBench((s) => s.selection);
  const job = useBench((s) => s.job);
  const view = useBeside((view) => view);
  const everything = useBench((s) => s.everything);
  const freed = useBench((s) => s.freed);
  const [factor, setFactor] = useState(2);
  const unit = job.units;
  const chosen = chosenIn(selection, view);
  const box = chosenBox(chosen, view);
  if (isEmptyBox(box)) return null;
  const most = LIMITS.sheetMostMm;
  const part = job.parts.find((p) => p.id === selection.partId);
  const seen = view?.parts.find((p) => p.id === selection.partId);
  const member = seen?.members.find((m) => m.id === chosen.memberId);
  const matrix = chosen.partIds.length > 1 ? null : (member ?? seen)?.matrix;
  const inHand = shapeInHand(job, selection);
  const stretched = freed ? inHand : null;
  const side = (which: 'width' | 'height') => {
    const own = stretched?.shape[which];
    const mm = own ?? (which === 'width' ? boxWidth(box) : boxHeight(box));
    return (
      <QuantityField
        bare
        label={
          stretched
            ? `Own ${which}, proportions freed`
            : which === 'width'
              ? 'Width as cut or drawn'
              : 'Height as cut or drawn'
        }
        prefix={which === 'width' ? 'w' : 'h'}
        unit={unit}
        value={clean(mm)}
        least={0.1}
        most={most}
        onChange={(to) =>
          stretched
            ? stretchTo(stretched.chosen, stretched.shape, { [which]: to })
            : void sizeTo(chosen, which, to, everything)
        }
      />
    );
  };
  return (
    <section aria-label="Place and size">
      <Heading beside="from the lower left">Place and size</Heading>
      <p className="nf-small mb-1" data-chosen>
        {chosenWords(job, chosen)}
      </p>
      <OnSheet />
      <div className={styles.pair}>
        <QuantityField
          bare
          label="From the left"
          prefix="x"
          unit={unit}
          value={clean(box.minX)}
          least={-most}
          most={most}
          onChange={(x) => moveTo(chosen, { x })}
        />
        <QuantityField
          bare
          label="From the bottom"
          prefix="y"
          unit={unit}
          value={clean(box.minY)}
          least={-most}
          most={most}
          onChange={(y) => moveTo(chosen, { y })}
        />
        {side('width')}
        {side('height')}
        <NumberField
          bare
          label={chosen.partIds.length > 1 ? 'Turn all by' : 'Turn'}
          prefix="↺"
          suffix="°"
          step={1}
          value={turnOf(job, chosen)}
          least={-360}
          most={360}
          onChange={(deg) => turnTo(chosen, deg)}
        />
        <Button
          variant="plain"
          aria-pressed={isMirrored(job, chosen)}
          active={isMirrored(job, chosen)}
          onClick={() => mirrorNow(chosen)}
          title="Mirror left to right, for engraving from behind"
        >
          <FlipHorizontal2 size={15} className="me-1" aria-hidden="true" />
          Mirror
        </Button>
      </div>
      {matrix && isTurned(matrix) && !stretched && (
        <p className="nf-small nf-muted mb-1">Turned: w and h are those of its bounds on the sheet.</p>
      )}
      <div className={styles.scale}>
        <NumberField label="Factor" suffix="×" step={0.1} least={0.01} most={100} value={factor} onChange={setFactor} />
        <Button variant="plain" aria-label="Size now" onClick={() => sizeBy(chosen, factor, everything)}>
          Size
        </Button>
      </div>
      {inHand && (
        <Button
          variant="word"
          aria-pressed={freed}
          onClick={() => freeProportions(!freed)}
          title={freed ? 'Width and height change together' : 'Width and height of the shape change by themselves'}
        >
          {freed ? (
            <LockOpen size={14} className="me-1" aria-hidden="true" />
          ) : (
            <Lock size={14} className="me-1" aria-hidden="true" />
          )}
          {freed ? 'Proportions are free' : 'Proportions are locked'}
        </Button>
      )}
      {chosen.memberId === null && chosen.partIds.length === 1 && part && seen && (
        <Switch
          label="Keep this width whatever the words"
          on={part.overallWidth !== null}
          onChange={(on) =>
            dispatch((now) => setOverallWidth(now, part.id, on ? clean(boxWidth(seen.ownBox)) : null, seen.scale))
          }
        />
      )}
      <Switch
        label="Everything along"
        on={everything}
        onChange={sizeEverything}
        note={everything ? 'Sizing sizes bridges, ties, borders, thickening and tips too.' : undefined}
      />
      <details className="nf-small nf-muted">
        <summary>What sizing sizes</summary>
        <p className="mb-1 mt-1">Grows along:</p>
        <ul className="ps-3 mb-1">
          {SIZED_ALONG.map((words) => (
            <li key={words}>{words}</li>
          ))}
        </ul>
        <p className="mb-1">Stays as it was set{everything ? ', but not now: everything goes along' : ''}:</p>
        <ul className="ps-3 mb-0">
          {STAYS_AS_SET.map((words) => (
            <li key={words}>{words}</li>
          ))}
        </ul>
      </details>
    </section>
  );
}
