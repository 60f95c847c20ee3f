/** Size and spacing of words, or of some of their lines. */
import { useId } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { memberOf } from '@/core/commands/changed';
import { fitIntoBox, setFit, unfit } from '@/core/commands/fit';
import { setOverallWidth } from '@/core/commands/overall';
import { type LinesAt, setLetterSpacing, setLineCapitals, setLineSpacing } from '@/core/commands/own-lines';
import type { Lettering } from '@/core/document/schema';
import { applyMatrix, boxHeight, boxWidth, invert } from '@/core/geometry/point';
import { textLines } from '@/core/lettering/draft-lines';
import { LIMITS } from '@/core/limits';
import { placementMatrix } from '@/core/prepare/placement';
import type { Fit } from '@/core/schema/fit';
import { formatLength } from '@/core/units/quantity';
import { Choice, NumberField, QuantityField, Row } from '@/ui/fields';
import { useBeside } from '../beside';
import { change, dispatch, setPointing, useBench } from '../store';

const SIZE_WORDS = {
  capital: 'Capital height',
  width: 'Widest line',
  height: 'Height of all',
  overall: 'Overall width',
} as const;
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

type Measure = Lettering['size']['by'] | 'overall' | 'box' | 'panel';

/** Size of all of the words, by one measure or another, or found for them. */
function SizeOfAll({ at, member }: Props) {
  const { partId } = at;
  const id = useId();
  const unit = useBench((s) => s.job.units);
  const seen = useBeside((view) => view?.parts.find((p) => p.id === partId));
  const overall = useBench((s) => s.job.parts.find((p) => p.id === partId)?.overallWidth ?? null);
  const isPointing = useBench((s) => s.pointing === 'panel');
  const hasOthers = useBench((s) => s.job.parts.length > 1);
  const computed = seen?.members.find((m) => m.id === member.id);
  const measure: Measure = overall !== null ? 'overall' : (member.fit?.to ?? member.size.by);
  const setSize = (size: Lettering['size'], merge: string | null) =>
    change((job) => {
      const draft = memberOf(job, partId, member.id);
      if (draft?.kind === 'lettering') draft.size = size;
    }, merge);

  /** The other measure takes over with the size the lettering has now, so that nothing moves. */
  const changeMeasure = (by: Measure) => {
    if (!computed || (by === measure && by !== 'panel')) return;
    if (by === 'panel') return setPointing('panel');
    if (seen && overall !== null) dispatch((job) => setOverallWidth(job, partId, null, seen.scale));
    const { ownBox, capHeightMm, matrix } = computed;
    if (by === 'box') return dispatch((job) => fitIntoBox(job, at, ownBox));
    if (member.fit) {
      const back = invert(placementMatrix(member.placement));
      const place = applyMatrix(back, { x: matrix.e, y: matrix.f });
      dispatch((job) => unfit(job, at, { capHeightMm, place }));
    }
    if (by === 'overall') {
      if (seen) dispatch((job) => setOverallWidth(job, partId, clean(boxWidth(seen.ownBox)), seen.scale));
      return;
    }
    const mm = { capital: capHeightMm, width: boxWidth(ownBox), height: boxHeight(ownBox) }[by];
    if (mm) setSize({ by, mm: clean(mm) }, null);
  };
  return (
    <>
      <Row label="Size by" htmlFor={id}>
        <Form.Select size="sm" id={id} value={measure} onChange={(e) => changeMeasure(e.target.value as Measure)}>
          <option value="capital">height of capitals</option>
          <option value="width">width of the words</option>
          <option value="height">height of the words</option>
          <option value="overall">width of the finished outline</option>
          <option value="box">a box they fill</option>
          {(hasOthers || measure === 'panel') && (
            <option value="panel">{measure === 'panel' ? 'a panel they fill' : 'a panel to press …'}</option>
          )}
        </Form.Select>
      </Row>
      {isPointing && (
        <p className="nf-small" role="status">
          Press the panel on the sheet; Esc leaves it.
        </p>
      )}
      {measure === 'box' || measure === 'panel' ? (
        <FitFields at={at} fit={member.fit as Fit} />
      ) : (
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
      )}
    </>
  );
}

/** What the words are fitted into. */
function FitFields({ at, fit }: { readonly at: LinesAt; readonly fit: Fit }) {
  const unit = useBench((s) => s.job.units);
  const capital = useBeside(
    (view) => view?.parts.find((p) => p.id === at.partId)?.members.find((m) => m.id === at.memberId)?.capHeightMm,
  );
  const set = (more: Partial<Extract<Fit, { to: 'box' }>>, merge: string | null = null) =>
    dispatch((job) => setFit(job, at, more), merge && `${merge}:${at.memberId}`);
  const side = { unit, least: 0.1, most: LIMITS.sheetMostMm };
  return (
    <>
      {fit.to === 'box' ? (
        <>
          <QuantityField {...side} label="Box width" value={fit.width} onChange={(width) => set({ width }, 'width')} />
          <QuantityField
            {...side}
            label="Box height"
            value={fit.height}
            onChange={(height) => set({ height }, 'height')}
          />
        </>
      ) : (
        <Button variant="plain" className="w-100 mb-2" onClick={() => setPointing('panel')}>
          Another panel
        </Button>
      )}
      <QuantityField
        {...side}
        label="Margin"
        least={0}
        value={fit.margin}
        onChange={(margin) => set({ margin }, 'margin')}
      />
      <Choice
        label="Centred by"
        value={fit.centre}
        options={[
          { value: 'ink', word: 'ink', title: 'By the bounds of what is drawn' },
          { value: 'weight', word: 'weight', title: 'By the centre of weight of the letters' },
          { value: 'capitals', word: 'capitals', title: 'By capitals and baseline, whatever hangs below' },
        ]}
        onChange={(centre) => set({ centre })}
      />
      {capital != null && (
        <p className="nf-small nf-muted">
          The capitals come to <span className="nf-figure">{formatLength(capital, unit)}</span>.
        </p>
      )}
    </>
  );
}
