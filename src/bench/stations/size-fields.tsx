/** Size and spacing of words, or of some of their lines. */
import { memberOf } from '@/core/commands/changed';
import { setOverallWidth } from '@/core/commands/overall';
import { type LinesAt, setLetterSpacing, setLineCapitals, setLineSpacing } from '@/core/commands/own-lines';
import type { Lettering } from '@/core/document/schema';
import { boxWidth } from '@/core/geometry/point';
import { textLines } from '@/core/lettering/draft-lines';
import { LIMITS } from '@/core/limits';
import { Choice, NumberField, QuantityField } from '@/ui/fields';
import { useBeside } from '../beside';
import { change, dispatch, useBench } from '../store';

const SIZE_WORDS = { capital: 'Capital height', width: 'Widest line', overall: 'Overall width' } as const;
const clean = (mm: number): number => Math.round(mm * 1e4) / 1e4;

type Props = { readonly at: LinesAt; readonly member: Lettering };

/** Size and spacing: of all of the words, or of the lines that are chosen. */
export function SizeFields({ at, member }: Props) {
  const { lines } = at;
  const acted = lines ?? textLines(member.text).map((_, line) => line);
  const own = acted.map((line) => member.lines.find((l) => l.line === line));
  const letterSpacings = own.map((l) => l?.letterSpacing ?? member.letterSpacing);
  const lineSpacings = own.map((l) => l?.lineSpacing ?? member.lineSpacing);
  const areMixed = (values: readonly number[]) => values.some((v) => v !== values[0]);
  return (
    <>
      {lines ? (
        <CapitalsOfLines at={at} scales={own.map((l) => l?.scale ?? 1)} />
      ) : (
        <SizeOfAll at={at} member={member} />
      )}
      <NumberField
        label="Letter spacing"
        suffix="%"
        scale={100}
        step={1}
        least={-2}
        most={10}
        value={letterSpacings[0] ?? 0}
        mixed={areMixed(letterSpacings)}
        onChange={(share) =>
          dispatch((job) => setLetterSpacing(job, at, share), `spacing:${at.memberId}:${lines?.join()}`)
        }
      />
      <NumberField
        label="Line spacing"
        suffix="%"
        scale={100}
        step={5}
        least={0.1}
        most={10}
        value={lineSpacings[0] ?? 1}
        mixed={areMixed(lineSpacings)}
        onChange={(share) => dispatch((job) => setLineSpacing(job, at, share), `lines:${at.memberId}:${lines?.join()}`)}
      />
    </>
  );
}

/** Height of the capitals of chosen lines. */
function CapitalsOfLines({ at, scales }: { readonly at: LinesAt; readonly scales: readonly number[] }) {
  const unit = useBench((s) => s.job.units);
  const words = useBeside(
    (view) =>
      view?.parts.find((p) => p.id === at.partId)?.members.find((m) => m.id === at.memberId)?.capHeightMm ?? null,
  );
  if (!words) return null;
  return (
    <QuantityField
      label="Capital height"
      unit={unit}
      value={clean((scales[0] ?? 1) * words)}
      mixed={scales.some((s) => s !== scales[0])}
      least={0.1}
      most={LIMITS.sheetMostMm}
      onChange={(mm) =>
        dispatch((job) => setLineCapitals(job, at, mm, { words }), `size:${at.memberId}:${at.lines?.join()}`)
      }
    />
  );
}

/** Size of all of the words, by one measure or another. */
function SizeOfAll({ at: { partId }, member }: Props) {
  const unit = useBench((s) => s.job.units);
  const seen = useBeside((view) => view?.parts.find((p) => p.id === partId));
  const overall = useBench((s) => s.job.parts.find((p) => p.id === partId)?.overallWidth ?? null);
  const computed = seen?.members.find((m) => m.id === member.id);
  const measure = overall === null ? member.size.by : 'overall';
  const setSize = (size: Lettering['size'], merge: string | null) =>
    change((job) => {
      const draft = memberOf(job, partId, member.id);
      if (draft?.kind === 'lettering') draft.size = size;
    }, merge);

  /** The other measure takes over with the size the lettering has now, so that nothing moves. */
  const changeMeasure = (by: 'capital' | 'width' | 'overall') => {
    if (!computed || by === measure) return;
    if (by === 'overall') {
      if (seen) dispatch((job) => setOverallWidth(job, partId, clean(boxWidth(seen.ownBox)), seen.scale));
      return;
    }
    if (seen && overall !== null) dispatch((job) => setOverallWidth(job, partId, null, seen.scale));
    const mm = by === 'capital' ? computed.capHeightMm : computed.ownBox.maxX - computed.ownBox.minX;
    if (mm && Number.isFinite(mm) && mm > 0) setSize({ by, mm: clean(mm) }, null);
  };
  return (
    <>
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
            ? setSize({ ...member.size, mm }, `size:${member.id}`)
            : dispatch((job) => setOverallWidth(job, partId, mm, seen?.scale ?? 1), `overall:${partId}`)
        }
      />
    </>
  );
}
