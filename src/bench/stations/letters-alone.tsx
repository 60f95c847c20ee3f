/** Letters of the selected part that go to an operation by themselves: another pen, another stone, another depth. */
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { partOf } from '@/core/commands/changed';
import { giveLetters, type LettersAlone as Only } from '@/core/commands/lines';
import type { Job, Part, Work } from '@/core/document/schema';
import { hasDot } from '@/core/kinds/letters-alone';
import { stepIn } from '@/core/kinds/steps';
import { WORKS, workKind } from '@/core/kinds/works';
import { Choice } from '@/ui/fields';
import { Heading } from '@/ui/heading';
import { OperationMark } from '@/ui/marks';
import type { PartView } from '@/worker/view';
import styles from '../bench.module.css';
import { useBeside } from '../beside';
import { dispatch, useBench } from '../store';
import { OperationSelect } from './operation-select';

/** So many letters are listed one by one. */
const LISTED = 400;
const NONE: Only = { letters: [], dots: false };

type Letter = { readonly key: string; readonly text: string };

/** The letters of a part in the order of its members, by their keys. */
const lettersOf = ({ members }: PartView): Letter[] =>
  members.flatMap((m) => m.picks.map(({ start, text }) => ({ key: `${m.id}:${start}`, text })));

/** The kinds of work on a part that can be given letter by letter: those it has. */
const whatsOf = (part: Part): Work['what'][] =>
  WORKS.filter(({ what, draws }) => what !== 'studs' && (draws === null || stepIn(part, draws)?.on)).map((w) => w.what);

/** Letters by themselves, of the one part that is selected; nothing where it has no letters. */
export function LettersAlone({ job }: { job: Job }) {
  const selection = useBench((s) => s.selection);
  const part = partOf(job, selection.partId);
  const view = useBeside((v) => v?.parts.find((p) => p.id === selection.partId));
  const letters = view ? lettersOf(view) : [];
  if (!part || part.reference || selection.others.length > 0 || letters.length === 0) return null;
  return <Of key={part.id} part={part} letters={letters} job={job} />;
}

function Of({ part, letters, job }: { part: Part; letters: readonly Letter[]; job: Job }) {
  const [isOpen, setOpen] = useState(false);
  const [asked, setWhat] = useState<Work['what'] | null>(null);
  const [chosen, setChosen] = useState<Only>(NONE);
  const whats = whatsOf(part);
  const given = part.work.filter((w) => w.only !== null);
  const what = asked !== null && whats.includes(asked) ? asked : (part.work[0]?.what ?? 'outline');
  const hasDots = letters.some((l) => hasDot(l.text));
  const give = (only: Only, of: Work['what'], operation: string) =>
    dispatch((doc) => giveLetters(doc, part.id, of, { only, operation: operation || undefined }));
  const count = chosen.letters.length + (chosen.dots ? 1 : 0);
  if (!isOpen && given.length === 0)
    return (
      <Button variant="plain" className="w-100 my-2" onClick={() => setOpen(true)} disabled={part.locked}>
        Letters by themselves
      </Button>
    );
  const press = (key: string) =>
    setChosen(({ letters: now, dots }) => ({
      letters: now.includes(key) ? now.filter((k) => k !== key) : [...now, key],
      dots,
    }));
  return (
    <section aria-label="Letters by themselves">
      <Heading beside={count > 0 ? `${count} chosen` : undefined}>Letters by themselves</Heading>
      {given.map((w) => (
        <Given
          key={`${w.what}-${w.operation}`}
          work={w}
          letters={letters}
          job={job}
          onBack={() => give(w.only ?? NONE, w.what, '')}
        />
      ))}
      {whats.length > 1 && (
        <Choice
          label="Of"
          value={what}
          options={whats.map((value) => ({ value, word: workKind(value).word.toLowerCase() }))}
          onChange={setWhat}
        />
      )}
      <fieldset className={styles.letters} aria-label="Letters">
        {hasDots && (
          <button
            type="button"
            className={styles.cutPlace}
            aria-pressed={chosen.dots}
            onClick={() => setChosen(({ letters: now, dots }) => ({ letters: now, dots: !dots }))}
          >
            all dots of i and j
          </button>
        )}
        {letters.slice(0, LISTED).map(({ key, text }) => (
          <button
            key={key}
            type="button"
            className={styles.cutPlace}
            aria-pressed={chosen.letters.includes(key)}
            onClick={() => press(key)}
          >
            {text}
          </button>
        ))}
      </fieldset>
      {count > 0 && (
        <div className="d-flex gap-2 align-items-center my-1">
          <span className="nf-small text-nowrap">give to</span>
          <OperationSelect
            value=""
            mixed={false}
            none="–"
            label="Give the chosen letters to"
            onChange={(operation) => {
              if (operation === '') return;
              give(chosen, what, operation);
              setChosen(NONE);
            }}
          />
        </div>
      )}
    </section>
  );
}

/** Letters that are given by themselves, and the way back. */
function Given({
  work,
  letters,
  job,
  onBack,
}: {
  work: Work;
  letters: readonly Letter[];
  job: Job;
  onBack: () => void;
}) {
  const operation = job.operations.find((o) => o.id === work.operation);
  if (!operation || !work.only) return null;
  const own = letters.filter((l) => work.only?.letters.includes(l.key)).map((l) => l.text);
  const words = [...(work.only.dots ? ['dots of i and j'] : []), ...(own.length > 0 ? [own.join(' ')] : [])].join(', ');
  return (
    <div className="d-flex gap-2 align-items-center nf-small mb-1">
      <OperationMark kind={operation.kind} />
      <span className="flex-grow-1 text-truncate" title={words}>
        {words}: {workKind(work.what).word.toLowerCase()} by {operation.name}
      </span>
      <Button variant="word" onClick={onBack}>
        with the rest
      </Button>
    </div>
  );
}
