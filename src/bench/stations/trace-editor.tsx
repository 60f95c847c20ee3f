/** What is asked of a traced picture: which tones belong to its shape, what is worth keeping, how closely it is followed. */
import { Download, Image } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import { editTrace, unpickTone } from '@/core/commands/pictures';
import type { Trace } from '@/core/document/schema';
import { LIMITS } from '@/core/limits';
import { formatLength } from '@/core/units/quantity';
import { Choice, QuantityField, Row, Switch } from '@/ui/fields';
import { Heading } from '@/ui/heading';
import { useBeside } from '../beside';
import { showPictureOf } from '../picture-edits';
import { dispatch, setPointing, useBench } from '../store';

const TONES = [
  { value: 'dark', word: 'dark' },
  { value: 'light', word: 'light' },
  { value: 'picked', word: 'pressed on' },
  { value: 'opaque', word: 'solid', title: 'All that can’t be seen through' },
] as const;

const count = (n: number, one: string): string => `${n.toLocaleString('en')} ${one}${n === 1 ? '' : 's'}`;

/** Pressing on what belongs to the shape, and on what does not. */
function Picks({ partId, member }: { partId: string; member: Trace }) {
  const pointing = useBench((s) => s.pointing);
  const { picks } = member.tones;
  const of = (belongs: boolean) => picks.filter((p) => p.belongs === belongs).length;
  const button = (what: 'tone belongs' | 'tone apart', word: string, n: number) => (
    <Button
      variant="plain"
      className="flex-fill"
      active={pointing === what}
      aria-pressed={pointing === what}
      onClick={() => setPointing(pointing === what ? null : what)}
    >
      {word}
      {n > 0 && <span className="nf-figure ms-1">{n}</span>}
    </Button>
  );
  return (
    <>
      <div className="d-flex gap-2 mb-1">
        {button('tone belongs', 'Belongs', of(true))}
        {button('tone apart', 'Does not', of(false))}
      </div>
      <p className="nf-small nf-muted mb-1">
        {pointing === 'tone belongs'
          ? 'Press on places in the picture that belong to the shape. Esc ends it.'
          : pointing === 'tone apart'
            ? 'Press on places that do not belong to it. Esc ends it.'
            : picks.length === 0
              ? 'Choose one, then press on places in the picture.'
              : 'A pixel belongs to what it is more like.'}{' '}
        {picks.length >= LIMITS.tonePicks && `With more than ${LIMITS.tonePicks} the first is forgotten. `}
        {picks.length > 0 && (
          <Button variant="word" onClick={() => dispatch((job) => unpickTone(job, partId, member.id))}>
            Take the last back
          </Button>
        )}
      </p>
    </>
  );
}

/** The panel of a traced picture. */
export function TraceEditor({ partId, member }: { partId: string; member: Trace }) {
  const units = useBench((s) => s.job.units);
  const isLaid = useBench((s) => s.job.pictures.some((p) => p.pixels === member.pixels && p.shown));
  const seen = useBeside((view) => view?.parts.find((p) => p.id === partId)?.members.find((m) => m.id === member.id));
  const edit = (recipe: (trace: Trace) => void, merge: string | null = null) =>
    dispatch((job) => editTrace(job, partId, member.id, recipe), merge && `${merge}:${member.id}`);
  const { scale, columns, tones, least, follow } = member;
  const found = seen?.traced;
  const isPicking = useBench((s) => s.pointing === 'tone belongs' || s.pointing === 'tone apart');
  return (
    <>
      <Heading>Traced picture</Heading>
      <p className="mb-2 text-break">{member.name || 'Without a name'}</p>
      <Choice
        label="The shape is"
        value={isPicking ? 'picked' : tones.by}
        options={TONES}
        onChange={(by) => {
          // The shape stays as it is until something is pressed on.
          if (by !== 'picked' || tones.picks.length > 0)
            edit((trace) => {
              trace.tones.by = by;
            });
          setPointing(by === 'picked' ? 'tone belongs' : null);
        }}
      />
      {(isPicking || tones.by === 'picked') && <Picks partId={partId} member={member} />}
      {tones.by !== 'opaque' && (
        <Switch
          label="Even out the light"
          on={tones.evenLight}
          onChange={(on) =>
            edit((trace) => {
              trace.tones.evenLight = on;
            })
          }
        />
      )}
      <QuantityField
        label="Smallest thing kept"
        unit={units}
        value={least}
        least={0}
        most={LIMITS.offsetMostMm}
        onChange={(mm) =>
          edit((trace) => {
            trace.least = mm;
          }, 'least')
        }
      />
      <Choice
        label="Followed"
        value={follow === null ? 'close' : 'within'}
        options={[
          { value: 'close', word: 'closely', title: 'As near as its edges are told' },
          { value: 'within', word: 'smoothly', title: 'With fewer curves, which may stray so far' },
        ]}
        onChange={(how) =>
          edit((trace) => {
            trace.follow = how === 'close' ? null : Math.min(LIMITS.gapMostMm, Math.max(0.001, scale));
          })
        }
      />
      {follow !== null && (
        <QuantityField
          label="May stray by"
          unit={units}
          value={follow}
          least={0.001}
          most={LIMITS.gapMostMm}
          onChange={(mm) =>
            edit((trace) => {
              trace.follow = mm;
            }, 'follow')
          }
        />
      )}
      <Switch
        label="Leave out what runs along the rim"
        on={member.dropRim}
        onChange={(on) =>
          edit((trace) => {
            trace.dropRim = on;
          })
        }
      />
      {found && (
        <Row label="Comes to">
          <span className="nf-figure">{count(found.nodes, 'node')}</span>
        </Row>
      )}
      {found && found.specks + found.pinholes > 0 && (
        <p className="nf-small nf-muted mb-1">
          Left out:{' '}
          {[found.specks > 0 && count(found.specks, 'speck'), found.pinholes > 0 && count(found.pinholes, 'pinhole')]
            .filter(Boolean)
            .join(', ')}
          .
        </p>
      )}
      <p className="nf-small nf-muted mb-1">
        A pixel of it is <span className="nf-figure">{formatLength(scale, units)}</span> wide here, all of it{' '}
        <span className="nf-figure">{formatLength(columns * scale, units)}</span>.
      </p>
      {!isLaid && (
        <Button variant="plain" className="w-100 mt-1" onClick={() => showPictureOf(partId, member)}>
          <Image size={14} className="me-1" aria-hidden="true" />
          Show its picture under it
        </Button>
      )}
      {member.original && (
        <a className="nf-small d-block mt-2" href={`/api/assets/${member.original}`} download={member.name || true}>
          <Download size={13} className="me-1" aria-hidden="true" />
          The file as it came
        </a>
      )}
    </>
  );
}
