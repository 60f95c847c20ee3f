/** Words, typeface, size and spacing of a lettering member. */
import { useId } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { memberOf } from '@/core/commands/changed';
import { setOverallWidth } from '@/core/commands/overall';
import { setCase } from '@/core/commands/words';
import type { Lettering } from '@/core/document/schema';
import { boxWidth } from '@/core/geometry/point';
import { LIMITS } from '@/core/limits';
import { keepable } from '@/core/units/text';
import { Choice, NumberField, QuantityField, Row } from '@/ui/fields';
import styles from '../bench.module.css';
import { useBeside } from '../beside';
import { change, dispatch, useBench } from '../store';
import { typeWords } from '../type-words';
import { FaceFields } from './face-fields';
import { FacePicker } from './face-picker';
import { LettersEditor } from './letters-editor';

const CASES = [
  { as: 'upper', word: 'CAPITALS', title: 'Write all in capitals' },
  { as: 'lower', word: 'small', title: 'Write all in small letters' },
  { as: 'title', word: 'Each Word', title: 'Begin each word with a capital' },
] as const;

const SIZE_WORDS = { capital: 'Capital height', width: 'Widest line', overall: 'Overall width' } as const;
const clean = (mm: number): number => Math.round(mm * 1e4) / 1e4;

/** The panel of lettering. */
export function LetteringEditor({ partId, member }: { partId: string; member: Lettering }) {
  const id = useId();
  const unit = useBench((s) => s.job.units);
  const seen = useBeside((view) => view?.parts.find((p) => p.id === partId));
  const overall = useBench((s) => s.job.parts.find((p) => p.id === partId)?.overallWidth ?? null);
  const computed = seen?.members.find((m) => m.id === member.id);
  const measure = overall === null ? member.size.by : 'overall';
  const edit = (recipe: (m: Lettering) => void, merge: string | null) =>
    change((job) => {
      const draft = memberOf(job, partId, member.id);
      if (draft?.kind === 'lettering') recipe(draft);
    }, merge && `${merge}:${member.id}`);

  /** The other measure takes over with the size the lettering has now, so that nothing moves. */
  const changeMeasure = (by: 'capital' | 'width' | 'overall') => {
    if (!computed || by === measure) return;
    if (by === 'overall') {
      if (seen) dispatch((job) => setOverallWidth(job, partId, clean(boxWidth(seen.ownBox)), seen.scale));
      return;
    }
    if (seen && overall !== null) dispatch((job) => setOverallWidth(job, partId, null, seen.scale));
    const mm = by === 'capital' ? computed.capHeightMm : computed.ownBox.maxX - computed.ownBox.minX;
    if (mm && Number.isFinite(mm) && mm > 0)
      edit((m) => {
        m.size = { by, mm: clean(mm) };
      }, null);
  };

  return (
    <>
      {/* A form of its own: at every key the browser looks through all fields of the form that one is in. */}
      <Form className="mb-2" autoComplete="off" onSubmit={(e) => e.preventDefault()}>
        <Form.Label htmlFor={id} className="fw-semibold mb-1 nf-small">
          Words
        </Form.Label>
        <Form.Control
          as="textarea"
          id={id}
          data-words
          dir="auto"
          className={styles.words}
          value={member.text}
          maxLength={LIMITS.letteringStoredCharacters}
          placeholder="Type the words; Enter starts a line"
          spellCheck={false}
          onChange={(e) => typeWords(partId, member.id, keepable(e.target.value))}
        />
      </Form>
      <fieldset className="d-flex gap-1 mb-2" aria-label="Write the words in">
        {CASES.map(({ as, word, title }) => (
          <Button
            key={as}
            variant="plain"
            title={title}
            onClick={() => dispatch((job) => setCase(job, partId, member.id, as))}
          >
            {word}
          </Button>
        ))}
      </fieldset>
      <LettersEditor partId={partId} member={member} view={computed} />
      <Row label="Typeface">
        <FacePicker partId={partId} member={member} />
      </Row>
      <FaceFields partId={partId} member={member} />
      <Choice
        label="Size by"
        value={measure}
        options={[
          { value: 'capital', word: 'capital', title: 'Height of a flat capital letter' },
          { value: 'width', word: 'words', title: 'Width of the widest line of the words' },
          {
            value: 'overall',
            word: 'overall',
            title: 'Width of the finished outline, with bar, border and thickening',
          },
        ]}
        onChange={changeMeasure}
      />
      <QuantityField
        label={SIZE_WORDS[measure]}
        unit={unit}
        value={overall ?? member.size.mm}
        least={0.1}
        most={LIMITS.sheetMostMm}
        onChange={(mm) =>
          overall === null
            ? edit((m) => {
                m.size.mm = mm;
              }, 'size')
            : dispatch((job) => setOverallWidth(job, partId, mm, seen?.scale ?? 1), `overall:${partId}`)
        }
      />
      <NumberField
        label="Letter spacing"
        suffix="%"
        scale={100}
        step={1}
        least={-2}
        most={10}
        value={member.letterSpacing}
        onChange={(share) =>
          edit((m) => {
            m.letterSpacing = share;
          }, 'spacing')
        }
      />
      <NumberField
        label="Line spacing"
        suffix="%"
        scale={100}
        step={5}
        least={0.1}
        most={10}
        value={member.lineSpacing}
        onChange={(share) =>
          edit((m) => {
            m.lineSpacing = share;
          }, 'lines')
        }
      />
      {member.text.includes('\n') && (
        <Choice
          label="Equal widths"
          value={member.evenLines}
          options={[
            { value: 'no', word: 'no' },
            { value: 'spacing', word: 'spacing', title: 'Lines made as wide as the widest by their letter spacing' },
            { value: 'size', word: 'size', title: 'By the size of their letters' },
            { value: 'both', word: 'both', title: 'Half by each' },
          ]}
          onChange={(evenLines) =>
            edit((m) => {
              m.evenLines = evenLines;
            }, null)
          }
        />
      )}
      <Choice
        label="Lines"
        value={member.align}
        options={[
          { value: 'left', word: 'left' },
          { value: 'centre', word: 'centre' },
          { value: 'right', word: 'right' },
        ]}
        onChange={(align) => {
          const box = computed?.ownBox;
          edit((m) => {
            // The words stay where they are: the origin moves to the other end of the line.
            if (box && Number.isFinite(box.minX) && !m.placement.mirror) {
              const ends = { left: box.minX, centre: (box.minX + box.maxX) / 2, right: box.maxX };
              // Members are placed as large as they say, whatever an overall width makes of them.
              const end = ends[align] / (seen?.scale ?? 1);
              const turn = (m.placement.turn * Math.PI) / 180;
              m.placement.x = Math.round((m.placement.x + end * Math.cos(turn)) * 1e3) / 1e3;
              m.placement.y = Math.round((m.placement.y + end * Math.sin(turn)) * 1e3) / 1e3;
            }
            m.align = align;
          }, null);
        }}
      />
    </>
  );
}
