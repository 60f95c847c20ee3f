/** A width that words keep within, whatever they are: by their spacing first, then by their size. */
import { memberOf } from '@/core/commands/changed';
import type { Lettering } from '@/core/document/schema';
import { boxWidth } from '@/core/geometry/point';
import { LIMITS } from '@/core/limits';
import type { Within } from '@/core/schema/within';
import { NumberField, QuantityField, Switch } from '@/ui/fields';
import { useBeside } from '../beside';
import { change, useBench } from '../store';

const tenths = (mm: number): number => Math.max(0.1, Math.round(mm * 10) / 10);

/** Capitals at first get no lower than this share of what they are. */
const LEAST_SHARE = 0.5;

type Props = { readonly partId: string; readonly member: Lettering };

/** Whether the words keep within a width, and how. */
export function WithinFields({ partId, member }: Props) {
  const unit = useBench((s) => s.job.units);
  const computed = useBeside((view) =>
    view?.parts.find((p) => p.id === partId)?.members.find((m) => m.id === member.id),
  );
  const { within } = member;
  const edit = (recipe: (words: Lettering) => void, merge: string | null) =>
    change((job) => {
      const draft = memberOf(job, partId, member.id);
      if (draft?.kind === 'lettering') recipe(draft);
    }, merge && `${merge}:${member.id}`);
  const set = (more: Partial<Within>, merge: string | null = null) =>
    edit((words) => {
      if (words.within) Object.assign(words.within, more);
    }, merge);
  const turn = (on: boolean) =>
    edit((words) => {
      const width = computed ? boxWidth(computed.ownBox) : 0;
      words.within = on
        ? {
            width: tenths(width > 0 ? width : 50),
            least: tenths((computed?.capHeightMm ?? 10) * LEAST_SHARE),
            greatest: null,
            tightest: null,
          }
        : null;
    }, null);
  const capitals = computed?.capHeightMm ?? 10;
  return (
    <>
      <Switch
        label="Keep within a width"
        on={within !== null}
        onChange={turn}
        note={within ? undefined : 'Long words get narrower, whatever they are'}
      />
      {within && (
        <>
          <QuantityField
            label="Width"
            unit={unit}
            value={within.width}
            least={LIMITS.leastLengthMm}
            most={LIMITS.sheetMostMm}
            onChange={(width) => set({ width }, 'within-width')}
          />
          <Switch
            label="Closer spacing first"
            on={within.tightest !== null}
            onChange={(on) => set({ tightest: on ? Math.max(-2, member.letterSpacing - 0.1) : null })}
          />
          {within.tightest !== null && (
            <NumberField
              label="Closest spacing"
              suffix="%"
              scale={100}
              step={1}
              least={-2}
              most={10}
              value={within.tightest}
              onChange={(tightest) => set({ tightest }, 'within-spacing')}
            />
          )}
          <Switch
            label="Capitals no lower than"
            on={within.least !== null}
            onChange={(on) => set({ least: on ? tenths(capitals * LEAST_SHARE) : null })}
          />
          {within.least !== null && (
            <QuantityField
              label="Lowest"
              unit={unit}
              value={within.least}
              least={LIMITS.leastLengthMm}
              most={LIMITS.sheetMostMm}
              onChange={(least) => set({ least }, 'within-least')}
            />
          )}
          <Switch
            label="Short words grow to the width"
            on={within.greatest !== null}
            onChange={(on) => set({ greatest: on ? tenths(capitals * 2) : null })}
          />
          {within.greatest !== null && (
            <QuantityField
              label="Highest"
              unit={unit}
              value={within.greatest}
              least={LIMITS.leastLengthMm}
              most={LIMITS.sheetMostMm}
              onChange={(greatest) => set({ greatest }, 'within-greatest')}
            />
          )}
        </>
      )}
    </>
  );
}
