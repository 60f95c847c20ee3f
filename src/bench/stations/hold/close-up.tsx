/** Closing letters up until they hang together, for each lettering of a part. */
import { memberOf } from '@/core/commands/changed';
import { newCloseUp } from '@/core/commands/defaults';
import type { CloseUp, Lettering, Part } from '@/core/document/schema';
import { formatLength } from '@/core/units/quantity';
import { Choice, QuantityField, Switch } from '@/ui/fields';
import type { MemberView, PartView } from '@/worker/view';
import { measureOf } from '../../seen';
import { change, useBench } from '../../store';
import { Joints } from './joints';

function Done({ member, wanted }: { member: MemberView; wanted: number }) {
  const unit = useBench((s) => s.job.units);
  const { closedUp } = member;
  if (!closedUp) return null;
  const { moved, mostMm, weakestMm, weakestAt, isWeakestHeld } = closedUp;
  const why = isWeakestHeld ? 'wider it would be another letter, or there is no room' : 'its strokes are no thicker';
  const weak = weakestMm !== null && weakestMm < wanted * 0.995;
  return (
    <p className="nf-small nf-muted">
      {moved === 0
        ? 'All of them overlap enough as they are.'
        : `${moved} moved, by up to ${formatLength(mostMm, unit)}. Dashed on the sheet: where they were.`}
      {weakestMm !== null &&
        ` ${weak ? 'Weakest' : 'Every'} joint ${formatLength(weakestMm, unit)}${weak ? `, at ${weakestAt}: ${why}` : ' or more'}.`}
    </p>
  );
}

function LetteringCloseUp({ part, member, view }: { part: Part; member: Lettering; view: PartView }) {
  const unit = useBench((s) => s.job.units);
  const computed = view.members.find((m) => m.id === member.id);
  const edit = (recipe: (m: Lettering) => void, merge: string | null = null) =>
    change((job) => {
      const draft = memberOf(job, part.id, member.id);
      if (draft?.kind === 'lettering') recipe(draft);
    }, merge && `${merge}:${member.id}`);
  const set = (values: Partial<CloseUp>, merge: string | null = null) =>
    edit((m) => {
      if (m.closeUp) Object.assign(m.closeUp, values);
    }, merge);
  const { closeUp } = member;
  const several = part.members.filter((m) => m.kind === 'lettering').length > 1;
  return (
    <>
      <Switch
        label={several ? `Close up ${member.text.trim().split('\n')[0]?.slice(0, 20)}` : 'Close letters up'}
        on={closeUp !== null}
        onChange={(on) =>
          edit((m) => {
            m.closeUp = on ? newCloseUp(measureOf(useBench.getState().job, view)) : null;
          })
        }
        note={
          closeUp
            ? undefined
            : 'Joins neighbours into one piece: moved together as little as possible, or by short strips.'
        }
      />
      {closeUp && (
        <>
          <Choice
            label="Joints"
            value={closeUp.joints}
            options={[
              {
                value: 'best',
                word: 'as reads best',
                title:
                  'Each pair by what costs the words least: touching, a foot on a common line, or a tie. Dots and accents are held too',
              },
              { value: 'overlap', word: 'overlap', title: 'Neighbours are moved together until they overlap' },
            ]}
            onChange={(joints) => set({ joints })}
          />
          <QuantityField
            label={closeUp.joints === 'best' ? 'Width of joints' : 'Overlap'}
            unit={unit}
            value={closeUp.overlap}
            least={0.01}
            most={1000}
            stepMm={unit === 'mm' ? 0.1 : 25.4 / 128}
            onChange={(overlap) => set({ overlap }, 'overlap')}
          />
          <Switch label="Over spaces too" on={closeUp.words} onChange={(words) => set({ words })} />
          {member.text.includes('\n') && (
            <Switch label="Lines too" on={closeUp.lines} onChange={(lines) => set({ lines })} />
          )}
          {computed && <Done member={computed} wanted={closeUp.overlap} />}
          {closeUp.joints === 'best' && <Joints part={part} member={member} pairs={computed?.closedUp?.pairs ?? []} />}
        </>
      )}
    </>
  );
}

/** Closing up the letters of a part. */
export function CloseUpOf({ part, view }: { part: Part; view: PartView }) {
  return (
    <>
      {part.members.map(
        (member) =>
          member.kind === 'lettering' &&
          member.text.trim() !== '' && <LetteringCloseUp key={member.id} part={part} member={member} view={view} />,
      )}
    </>
  );
}
