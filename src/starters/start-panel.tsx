/** What a starter asks for, and what comes of it. */
import { useQuery } from '@tanstack/react-query';
import { type FormEvent, useEffect, useId, useMemo, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { setMachine as onMachine } from '@/core/commands/shop';
import type { Job } from '@/core/document/schema';
import { askedIn, type StartAnswers, unanswered } from '@/core/job/start';
import { LIMITS } from '@/core/limits';
import { formatLengthNumber } from '@/core/units/quantity';
import { keepable } from '@/core/units/text';
import { Choice, QuantityField, Row } from '@/ui/fields';
import { Heading } from '@/ui/heading';
import { JobPicture } from '@/ui/job-picture';
import { lastMachine, rememberMachine } from '@/ui/last-machine';
import { StockFields } from '@/ui/stock-fields';
import { useMaterials, useShop } from '@/ui/use-shop';
import { computing } from '@/worker/client';
import type { StartedView } from '@/worker/host';
import type { ChosenStarter } from './starters';
import styles from './starters.module.css';
import { keepUnits } from './units';

/** The most that all of the work is made wide or high, in mm. */
const MOST = LIMITS.sheetMostMm;

/** The fields of a starter, with a live picture. `onStart` is given the job as it is then. */
export function StartPanel({
  starter,
  units: firstUnits,
  isStarting,
  onStart,
}: {
  starter: ChosenStarter;
  units: Job['units'];
  isStarting: boolean;
  onStart: (started: StartedView) => void;
}) {
  const { job } = starter;
  const asked = askedIn(job);
  const materials = useMaterials();
  const [answers, setAnswers] = useState(() => unanswered(starter.job, firstUnits));
  const shop = useShop();
  const [machine, setMachine] = useState(() => lastMachine() ?? '');
  const { data: made } = useStarted(starter, answers, materials.length);
  const chosen = shop.machines.find((m) => m.id === machine);
  const started = useMemo(
    () => made && (chosen ? { ...made, job: onMachine(made.job, { ...chosen.entry, id: chosen.id }, shop) } : made),
    [made, chosen, shop],
  );
  const set = (values: Partial<StartAnswers>) => setAnswers((now) => ({ ...now, ...values }));
  const { units } = answers;
  const first = useRef<HTMLTextAreaElement>(null);
  const wished = useRef(false);
  const id = useId();
  useEffect(() => {
    first.current?.focus();
    first.current?.select();
  }, []);
  // Pressed while what was typed last is still being computed: it is started as soon as that is there.
  useEffect(() => {
    if (!wished.current || !started) return;
    wished.current = false;
    onStart(started);
  }, [started, onStart]);
  const start = (event?: FormEvent) => {
    event?.preventDefault();
    if (started) onStart(started);
    else wished.current = true;
  };
  const n = (mm: number) => formatLengthNumber(mm, units);
  const shown = useLast(started);
  const sheet = shown?.job.sheet ?? job.sheet;
  return (
    <form className={styles.panel} onSubmit={start} aria-label={job.title}>
      <div className={styles.preview} aria-busy={!started}>
        <JobPicture
          picture={shown?.picture ?? { width: job.sheet.width, height: job.sheet.height, shapes: [] }}
          title={job.title}
        />
      </div>
      <div className={styles.fields}>
        <h2>{job.title}</h2>
        <p className="nf-muted">{job.starter?.about}</p>
        {asked.map(({ asked: label, text }, i) => (
          <Form.Group key={`${label}-${i.toString()}`} controlId={`${id}-${i}`} className="mb-2">
            <Form.Label className="mb-1">{label}</Form.Label>
            <Form.Control
              as="textarea"
              size="sm"
              rows={Math.min(4, Math.max(1, (answers.words[i] ?? text).split('\n').length))}
              ref={i === 0 ? first : undefined}
              value={answers.words[i] ?? text}
              maxLength={LIMITS.letteringCharacters}
              onChange={(e) =>
                set({ words: answers.words.map((words, k) => (k === i ? keepable(e.target.value) : words)) })
              }
              onKeyDown={(e) => {
                if (e.key === 'Enter' && (e.ctrlKey || e.metaKey)) start(e);
              }}
            />
          </Form.Group>
        ))}
        {job.parts.length > 0 && (
          <>
            <Heading beside="all of it, proportions kept">Size</Heading>
            {(['width', 'height'] as const).map((side) => (
              <QuantityField
                key={side}
                label={side === 'width' ? 'Width' : 'Height'}
                unit={units}
                value={Math.round((answers.size?.side === side ? answers.size.mm : (shown?.[side] ?? 0)) * 100) / 100}
                least={0}
                most={MOST}
                onChange={(mm) => set({ size: mm > 0 ? { side, mm } : null })}
              />
            ))}
          </>
        )}
        <Heading beside={`${n(sheet.width)} × ${n(sheet.height)} ${units}`}>Stock</Heading>
        <Row label="Machine" htmlFor={`${id}-machine`}>
          <Form.Select
            id={`${id}-machine`}
            size="sm"
            value={chosen?.id ?? ''}
            onChange={(e) => {
              rememberMachine(e.target.value);
              setMachine(e.target.value);
            }}
          >
            <option value="">not given</option>
            {shop.machines.map(({ id: own, entry }) => (
              <option key={own} value={own}>
                {entry.name}
              </option>
            ))}
          </Form.Select>
        </Row>
        <StockFields
          material={answers.material}
          thickness={answers.thickness}
          unit={units}
          materials={materials}
          onMaterial={(material) => set({ material })}
          onThickness={(thickness, thicknessAs) => set({ thickness, thicknessAs })}
        />
        {(['width', 'height'] as const).map((side) => (
          <QuantityField
            key={side}
            label={side === 'width' ? 'Sheet, width' : 'Sheet, height'}
            unit={units}
            value={sheet[side]}
            least={LIMITS.sheetLeastMm}
            most={LIMITS.sheetMostMm}
            stepMm={units === 'mm' ? 10 : 25.4}
            onChange={(mm) => set({ sheet: { width: sheet.width, height: sheet.height, [side]: mm } })}
          />
        ))}
        <Choice
          label="Units"
          value={units}
          options={[
            { value: 'mm', word: 'mm' },
            { value: 'in', word: 'in' },
          ]}
          onChange={(chosen) => {
            keepUnits(chosen);
            set({ units: chosen });
          }}
        />
      </div>
      <div className={styles.foot}>
        <Found started={shown} isFresh={started !== undefined && started !== null} />
        <Button type="submit" variant="primary" disabled={isStarting}>
          Start the job
        </Button>
      </div>
    </form>
  );
}

/** How many findings there would be, in words. */
function Found({ started, isFresh }: { started: StartedView | null; isFresh: boolean }) {
  const count = started?.findings.length ?? 0;
  return (
    <p className={styles.found} role="status" title={started?.findings.join('\n')}>
      {!isFresh ? 'Drawing …' : count === 0 ? 'Nothing to look at.' : `${count} to look at`}
    </p>
  );
}

/** What was answered, drawn by the worker; of several on their way the newest counts. */
const useStarted = (starter: ChosenStarter, answers: StartAnswers, known: number) => {
  const materials = useMaterials();
  return useQuery({
    queryKey: ['started', starter.id, answers, known],
    queryFn: () => computing().started(starter.job, answers, materials, true),
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 60_000,
  });
};

/** The last value there was, while there is none. */
function useLast<T>(value: T | null | undefined): T | null {
  const last = useRef<T | null>(null);
  if (value) last.current = value;
  return last.current;
}
