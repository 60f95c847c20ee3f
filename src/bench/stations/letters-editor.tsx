/** Letters one by one: those picked on the sheet are moved, turned and sized by themselves. */
import Button from 'react-bootstrap/Button';
import { memberOf } from '@/core/commands/changed';
import { letterChange, settleLetters } from '@/core/commands/letters';
import type { LetterChange, Lettering } from '@/core/document/schema';
import { NumberField, QuantityField } from '@/ui/fields';
import { Heading } from '@/ui/heading';
import type { MemberView } from '@/worker/view';
import styles from '../bench.module.css';
import { change, pick, select, useBench } from '../store';
import { LetterForms } from './letter-forms';

/** Letters are moved up to this many capital heights. */
const FARTHEST = 20;

const NONE: Omit<LetterChange, 'at'> = { dx: 0, dy: 0, turn: 0, scale: 1, form: null };

/** Letters one by one: moved, turned, sized. */
export function LettersEditor({
  partId,
  member,
  view,
}: {
  partId: string;
  member: Lettering;
  view: MemberView | undefined;
}) {
  const unit = useBench((s) => s.job.units);
  const picked = useBench((s) => s.picked);
  const letters = view?.picks ?? [];
  if (letters.length === 0) return null;
  const moved = member.letters.length;
  /** Letters are picked in the lettering itself. */
  const begin = () => {
    select(partId, member.id);
    pick([]);
  };
  if (picked === null)
    return (
      <Button variant="plain" className="w-100 mb-2" onClick={begin}>
        Letters one by one{moved > 0 ? ` · ${moved} changed` : ''}
      </Button>
    );
  const chosen = letters.filter((l) => picked.includes(l.start));
  const capital = chosen[0]?.capitalMm ?? 1;
  const now = member.letters.find((c) => c.at === chosen[0]?.start) ?? NONE;
  const edit = (recipe: (c: LetterChange) => void, merge: string) =>
    change((job) => {
      const draft = memberOf(job, partId, member.id);
      if (draft?.kind !== 'lettering') return;
      for (const at of picked) recipe(letterChange(draft, at));
      settleLetters(draft);
    }, `letters:${merge}:${picked.join()}`);
  const step = (by: 1 | -1) => {
    const at = letters.findIndex((l) => l.start === picked[picked.length - 1]);
    const next = letters[(at + by + letters.length) % letters.length];
    if (next) pick([next.start]);
  };
  return (
    <section aria-label="Letters one by one">
      <Heading beside={chosen.length === 0 ? 'none picked' : chosen.map((l) => l.text).join(' ')}>
        Letters one by one
      </Heading>
      <div className={styles.buttons}>
        <Button variant="plain" onClick={() => step(-1)} aria-label="Letter before">
          ‹
        </Button>
        <Button variant="plain" onClick={() => step(1)} aria-label="Letter after">
          ›
        </Button>
        <Button variant="plain" onClick={() => pick(null)}>
          Done
        </Button>
      </div>
      {chosen.length === 0 ? (
        <p className="nf-small nf-muted">
          Press letters on the sheet; Shift adds more. Drag them, or nudge with the arrows.
        </p>
      ) : (
        <>
          <QuantityField
            label="To the right"
            unit={unit}
            value={now.dx * capital}
            least={-FARTHEST * capital}
            most={FARTHEST * capital}
            stepMm={unit === 'mm' ? 0.1 : 25.4 / 128}
            onChange={(mm) =>
              edit((c) => {
                c.dx = mm / capital;
              }, 'dx')
            }
          />
          <QuantityField
            label="Up"
            unit={unit}
            value={now.dy * capital}
            least={-FARTHEST * capital}
            most={FARTHEST * capital}
            stepMm={unit === 'mm' ? 0.1 : 25.4 / 128}
            onChange={(mm) =>
              edit((c) => {
                c.dy = mm / capital;
              }, 'dy')
            }
          />
          <NumberField
            label="Turn"
            suffix="°"
            step={1}
            least={-360}
            most={360}
            value={now.turn}
            onChange={(deg) =>
              edit((c) => {
                c.turn = deg;
              }, 'turn')
            }
          />
          <NumberField
            label="Size"
            suffix="%"
            scale={100}
            step={5}
            least={0.05}
            most={20}
            value={now.scale}
            onChange={(scale) =>
              edit((c) => {
                c.scale = scale;
              }, 'size')
            }
          />
          <LetterForms partId={partId} member={member} picked={picked} />
          <Button
            variant="word"
            onClick={() =>
              edit((c) => {
                Object.assign(c, NONE);
              }, 'back')
            }
          >
            Back as they were
          </Button>
        </>
      )}
      {moved > 0 && (
        <Button
          variant="word"
          className="d-block"
          onClick={() =>
            change((job) => {
              const draft = memberOf(job, partId, member.id);
              if (draft?.kind === 'lettering') draft.letters = [];
            })
          }
        >
          {moved === 1 ? 'The changed letter back' : `All ${moved} changed letters back`}
        </Button>
      )}
    </section>
  );
}
