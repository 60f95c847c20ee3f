/** The strip across the top: the job, the route, saving, units, export. */
import { CircleHelp, History, Redo2, Undo2 } from 'lucide-react';
import Link from 'next/link';
import { useEffect, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { STATIONS } from '@/core/inspect/stations';
import { LIMITS } from '@/core/limits';
import { openGroups, worstOf } from '@/core/rules/groups';
import { formatLengthNumber } from '@/core/units/quantity';
import { keepable } from '@/core/units/text';
import { Logo } from '@/ui/marks';
import { SchemeSwitch } from '@/ui/scheme-switch';
import styles from './bench.module.css';
import { useBeside } from './beside';
import { notSavedWords } from './not-saved-words';
import { isProved, useProof } from './proof/proving';
import { change, dispatchDocument, goToStation, redo, undo, useBench } from './store';

function Route() {
  const station = useBench((s) => s.station);
  const findings = useBeside((view) => view?.findings);
  const job = useBench((s) => s.job);
  const seen = useBench((s) => s.view);
  const isNowProved = useProof((s) => isProved(s.proved, job, seen));
  const hasParts = useBench((s) => s.view !== null && s.job.parts.length > 0);
  const hasWork = useBeside((view) => view?.operations.some((o) => o.paths > 0 || o.fillMm2 > 0) ?? false);
  return (
    <nav aria-label="Route">
      <ol className={styles.route}>
        {STATIONS.map((stop, i) => {
          const open = openGroups((findings ?? []).filter((f) => f.station === stop.id));
          const worst = worstOf(open);
          const isToProve = stop.id === 'prove' && open.length === 0;
          const reached = stop.asksFor === 'work' ? hasWork : hasParts;
          const done = isToProve ? (isNowProved ? 'proved' : 'not proved yet') : 'done';
          const state = !reached ? 'nothing to do' : open.length > 0 ? `${open.length} to look at` : done;
          return (
            <li
              key={stop.id}
              className={[
                station === stop.id ? styles.now : '',
                reached && open.length === 0 && (!isToProve || isNowProved) ? styles.passed : '',
              ].join(' ')}
            >
              <button
                type="button"
                className={styles.stop}
                aria-current={station === stop.id ? 'step' : undefined}
                title={`${stop.word}: ${state}`}
                onClick={() => goToStation(stop.id)}
              >
                <span className={styles.dot}>{i + 1}</span>
                {open.length > 0 && (
                  <span className={styles.flag} data-severity={worst} aria-hidden="true">
                    {open.length}
                  </span>
                )}
                <br />
                {stop.word}
                <span className="visually-hidden">, {state}</span>
              </button>
            </li>
          );
        })}
      </ol>
    </nav>
  );
}

const clock = (iso: string): string => {
  const time = new Date(iso);
  return Number.isNaN(time.getTime()) ? '' : time.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });
};

function Saved() {
  const save = useBench((s) => s.save);
  const isKept = useBench((s) => s.isKept);
  const words = {
    saved: () =>
      save.kind === 'saved' && save.at ? (
        <>
          Saved<span className={styles.clock}> {clock(save.at)}</span>
        </>
      ) : (
        'Saved'
      ),
    waiting: () => 'Saving …',
    saving: () => 'Saving …',
    away: () => 'Not saved yet: away',
    refused: () => 'Not saved',
    stale: () => 'Not saved: changed elsewhere',
    gone: () => 'Not saved: deleted elsewhere',
  }[save.kind]();
  const bad = !['saved', 'waiting', 'saving'].includes(save.kind);
  return (
    <span className={styles.saved} data-bad={bad} role="status" title={notSavedWords(save, isKept) ?? undefined}>
      {words}
    </span>
  );
}

function Title() {
  const title = useBench((s) => s.document.title);
  const { width, height, material, thickness } = useBench((s) => s.job.sheet);
  const units = useBench((s) => s.job.units);
  const [typed, setTyped] = useState<string | null>(null);
  useEffect(() => setTyped((now) => (now === null || now.trim() === title ? null : now)), [title]);
  const n = (mm: number) => formatLengthNumber(mm, units);
  const stock = [material, thickness ? `${n(thickness)} ${units}` : ''].filter(Boolean).join(' ');
  return (
    <div className={styles.title}>
      <input
        aria-label="Name of the job"
        value={typed ?? title}
        maxLength={LIMITS.nameCharacters}
        onChange={(e) => {
          const words = keepable(e.target.value);
          setTyped(words);
          const name = words.trim();
          if (name) dispatchDocument((job) => (job.title === name ? job : { ...job, title: name }), 'title');
        }}
        onBlur={() => setTyped(null)}
        onKeyDown={(e) => {
          if (e.key === 'Enter' || e.key === 'Escape') e.currentTarget.blur();
        }}
      />
      <small>
        {n(width)} × {n(height)} {units}
        {stock && ` · ${stock}`}
      </small>
    </div>
  );
}

/** The strip across the top of the bench. */
export function Top({
  onLeave,
  onHelp,
  onVersions,
}: {
  /** Go to the list of jobs, once this one is kept. */
  onLeave: () => void;
  onHelp: () => void;
  onVersions: () => void;
}) {
  const units = useBench((s) => s.job.units);
  const canUndo = useBench((s) => s.past.length > 0);
  const canRedo = useBench((s) => s.future.length > 0);
  return (
    <header className={styles.top}>
      <div className={styles.who}>
        <Link
          href="/"
          aria-label="All jobs"
          title="All jobs"
          onNavigate={(e) => {
            e.preventDefault();
            onLeave();
          }}
        >
          <Logo />
        </Link>
        <Title />
        <div className="d-flex">
          <button
            type="button"
            className={styles.iconButton}
            aria-label="Undo"
            title="Undo"
            disabled={!canUndo}
            onClick={undo}
          >
            <Undo2 size={17} />
          </button>
          <button
            type="button"
            className={styles.iconButton}
            aria-label="Redo"
            title="Redo"
            disabled={!canRedo}
            onClick={redo}
          >
            <Redo2 size={17} />
          </button>
          <button
            type="button"
            className={styles.iconButton}
            aria-label="Earlier versions"
            title="Earlier versions"
            onClick={onVersions}
          >
            <History size={17} />
          </button>
        </div>
      </div>
      <Route />
      <div className={styles.end}>
        <Saved />
        <button type="button" className={styles.iconButton} aria-label="Help" title="Help (?)" onClick={onHelp}>
          <CircleHelp size={17} />
        </button>
        <SchemeSwitch />
        <Button
          variant="plain"
          title={units === 'mm' ? 'Show inches' : 'Show millimetres'}
          aria-label={`Unit ${units}; change`}
          onClick={() =>
            change((job) => {
              job.units = job.units === 'mm' ? 'in' : 'mm';
            })
          }
        >
          {units}
        </Button>
        <Button variant="primary" onClick={() => goToStation('prove')}>
          Export
        </Button>
      </div>
    </header>
  );
}
