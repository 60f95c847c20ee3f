/** The words bridged in several ways, side by side. */
import { proxy } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import type { StepOf } from '@/core/document/schema';
import { computing } from '@/worker/client';
import type { BridgeVariantView } from '@/worker/view';
import { useBench } from '../../store';
import hold from './hold.module.css';
import { type StepProps, useStep } from './use-step';

const DIRECTION_WORDS = { any: 'any direction', upright: 'upright', level: 'level', stroke: 'across the stroke' };

function Variant({ variant, isNow, onTake }: { variant: BridgeVariantView; isNow: boolean; onTake: () => void }) {
  const { minX, minY, maxX, maxY } = variant.box;
  const { count, direction } = variant.values;
  return (
    <li>
      <button type="button" className={hold.variant} aria-pressed={isNow} onClick={onTake}>
        <svg viewBox={`${minX} ${-maxY} ${Math.max(1e-6, maxX - minX)} ${Math.max(1e-6, maxY - minY)}`} aria-hidden>
          <path d={variant.d} transform="scale(1 -1)" fill="currentColor" fillRule="evenodd" />
        </svg>
        <span>
          {count} each, {DIRECTION_WORDS[direction]}
        </span>
        <span className={variant.unheld > 0 ? hold.bad : hold.fine}>
          readable {Math.round(variant.readability)} %{variant.unheld > 0 ? ` · ${variant.unheld} not held` : ''}
        </span>
      </button>
    </li>
  );
}

/** Ways to bridge a part, side by side. */
export function CompareBridges(props: StepProps & { step: StepOf<'bridge'> }) {
  const { part, step } = props;
  const job = useBench((s) => s.job);
  const { set } = useStep(props, 'bridge');
  const [isOpen, setOpen] = useState(false);
  const [variants, setVariants] = useState<readonly BridgeVariantView[]>([]);
  const [progress, setProgress] = useState<{ done: number; of: number } | null>(null);
  const [fault, setFault] = useState(false);
  const latest = useRef(0);
  useEffect(() => {
    if (!isOpen) return;
    const mine = ++latest.current;
    const timer = setTimeout(async () => {
      setProgress({ done: 0, of: 1 });
      setFault(false);
      try {
        const onProgress = proxy((done: number, of: number) => {
          if (mine === latest.current) setProgress({ done, of });
        });
        const made = await computing().bridgeVariants(job, part.id, step, onProgress);
        if (mine !== latest.current || made === null) return;
        setVariants(made);
      } catch {
        if (mine === latest.current) setFault(true);
      }
      if (mine === latest.current) setProgress(null);
    }, 200);
    return () => clearTimeout(timer);
  }, [isOpen, job, part.id, step]);
  if (props.part.locked) return null;
  return (
    <>
      <Button variant="word" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
        {isOpen ? 'Close the comparison' : 'Compare side by side'}
      </Button>
      {isOpen && (
        <>
          {progress && (
            <p className="nf-small nf-muted m-0" role="status">
              Comparing … {progress.done > 0 ? `${progress.done} of ${progress.of}` : ''}
            </p>
          )}
          {fault && <p className="nf-small text-danger">This could not be computed.</p>}
          <ul className={hold.variants} aria-label="Ways to bridge">
            {variants.map((variant) => (
              <Variant
                key={`${variant.values.count}${variant.values.direction}`}
                variant={variant}
                isNow={variant.values.count === step.count && variant.values.direction === step.direction}
                onTake={() => set(variant.values)}
              />
            ))}
          </ul>
        </>
      )}
    </>
  );
}
