/** What words run along: straight, an arc, a circle, a wave, a drawn line, or an outline of another part. */
import { PenTool } from 'lucide-react';
import { useId } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { type MadeLine, runAlong, runAlongPart, runStraight, setAlong } from '@/core/commands/run-along';
import { partWords } from '@/core/document/part-words';
import type { Lettering } from '@/core/document/schema';
import { ArcLength } from '@/core/geometry/arc-length';
import { radiusOfRise, riseOfRadius } from '@/core/lettering/text-path';
import { LIMITS } from '@/core/limits';
import type { Along } from '@/core/schema/along';
import { Choice, NumberField, QuantityField, Row, Switch } from '@/ui/fields';
import { useBeside } from '../beside';
import { alongSeen, wordsSeen } from '../run-along';
import { dispatch, setPen, useBench } from '../store';

type Props = { readonly partId: string; readonly member: Lettering };

const MADE: readonly { readonly kind: MadeLine; readonly word: string }[] = [
  { kind: 'arc', word: 'an arc' },
  { kind: 'circle', word: 'a circle' },
  { kind: 'wave', word: 'a wave' },
];

/** Chooses the line, and says what it measures. */
export function AlongFields({ partId, member }: Props) {
  const id = useId();
  const at = { partId, memberId: member.id };
  const { along } = member;
  const parts = useBench((s) => s.job.parts);
  const others = parts.filter((p) => p.id !== partId);
  const value = !along ? 'straight' : along.line.kind === 'outline' ? `part ${along.line.of}` : along.line.kind;
  const choose = (chosen: string) => {
    const seen = wordsSeen(at);
    const made = MADE.find((m) => m.kind === chosen);
    if (chosen === 'path') setPen(true, at);
    else if (chosen.startsWith('part ')) dispatch((job) => runAlongPart(job, at, chosen.slice(5)));
    else dispatch((job) => (made ? runAlong(job, at, made.kind, seen) : runStraight(job, at, seen)));
  };
  return (
    <>
      <Row label="Runs along" htmlFor={id}>
        <Form.Select size="sm" id={id} value={value} onChange={(e) => choose(e.target.value)}>
          <option value="straight">a straight line</option>
          {MADE.map(({ kind, word }) => (
            <option key={kind} value={kind}>
              {word}
            </option>
          ))}
          <option value="path">{value === 'path' ? 'a drawn line' : 'a line to draw …'}</option>
          {others.length > 0 && (
            <optgroup label="An outline of">
              {others.map((part) => (
                <option key={part.id} value={`part ${part.id}`}>
                  {partWords(part)}
                </option>
              ))}
            </optgroup>
          )}
          {along?.line.kind === 'outline' && !others.some((p) => `part ${p.id}` === value) && (
            <option value={value}>a part that is gone</option>
          )}
        </Form.Select>
      </Row>
      {along && <LineFields at={at} along={along} />}
      {along && <StandFields at={at} along={along} member={member} />}
    </>
  );
}

type FieldsProps = { readonly at: { readonly partId: string; readonly memberId: string }; readonly along: Along };

/** What the line measures. */
function LineFields({ at, along }: FieldsProps) {
  const unit = useBench((s) => s.job.units);
  const view = useBeside((v) => v?.parts.find((p) => p.id === at.partId)?.members.find((m) => m.id === at.memberId));
  const { line } = along;
  const set = (next: Along['line'], merge: string) =>
    dispatch((job) => setAlong(job, at, { line: next }), `${merge}:${at.memberId}`);
  const shared = { unit, least: 0.1, most: LIMITS.sheetMostMm };
  switch (line.kind) {
    case 'arc': {
      const length = view?.along?.lengthMm ?? 0;
      const change = (by: 'radius' | 'rise') => {
        if (by === line.by || length === 0) return;
        const mm = by === 'radius' ? radiusOfRise(length, line.mm) : riseOfRadius(length, line.mm);
        set({ ...line, by, mm: Math.max(0.1, Math.round(mm * 1e3) / 1e3) }, 'by');
      };
      return (
        <>
          <Choice
            label="Bends"
            value={line.bends}
            options={[
              { value: 'up', word: 'upwards', title: 'The middle is highest' },
              { value: 'down', word: 'downwards', title: 'The middle is lowest' },
            ]}
            onChange={(bends) => set({ ...line, bends }, 'bends')}
          />
          <Choice
            label="Measured by"
            value={line.by}
            options={[
              { value: 'rise', word: 'rise', title: 'How high the middle is above the ends, whatever the words are' },
              { value: 'radius', word: 'radius' },
            ]}
            onChange={change}
          />
          <QuantityField
            {...shared}
            label={line.by === 'rise' ? 'Rise' : 'Radius'}
            value={line.mm}
            onChange={(mm) => set({ ...line, mm }, 'arc')}
          />
        </>
      );
    }
    case 'circle':
      return (
        <QuantityField
          {...shared}
          label="Radius"
          value={line.radius}
          onChange={(radius) => set({ ...line, radius }, 'circle')}
        />
      );
    case 'wave':
      return (
        <>
          <QuantityField
            {...shared}
            label="Crest to crest"
            value={line.length}
            onChange={(length) => set({ ...line, length }, 'wave')}
          />
          <QuantityField
            {...shared}
            label="Height"
            value={line.height}
            onChange={(height) => set({ ...line, height }, 'height')}
          />
        </>
      );
    case 'path':
      return (
        <Button variant="plain" className="w-100 mb-2" onClick={() => setPen(true, at)}>
          <PenTool size={14} className="me-1" aria-hidden="true" />
          Draw the line anew
        </Button>
      );
    case 'outline':
      return (
        <NumberField
          label="Outline"
          suffix=""
          digits={0}
          step={1}
          least={1}
          most={10_000}
          value={line.outline + 1}
          onChange={(nth) => set({ ...line, outline: Math.round(nth) - 1 }, 'outline')}
        />
      );
  }
}

/** How the words stand on it. */
function StandFields({ at, along, member }: FieldsProps & { readonly member: Lettering }) {
  const unit = useBench((s) => s.job.units);
  const view = useBeside((v) => v?.parts.find((p) => p.id === at.partId)?.members.find((m) => m.id === at.memberId));
  const seen = view ? alongSeen(view) : null;
  const isClosed = view?.along?.closed ?? false;
  const isRound = isClosed && along.line.kind !== 'arc';
  const most = seen ? Math.max(1, new ArcLength(seen.path).length) : LIMITS.sheetMostMm;
  const set = (more: Partial<Along>, merge: string | null = null) =>
    dispatch((job) => setAlong(job, at, more), merge && `${merge}:${at.memberId}`);
  return (
    <>
      <Choice
        label="Letters stand"
        value={along.side}
        options={
          isRound
            ? [
                { value: 'on', word: 'outside' },
                { value: 'under', word: 'inside' },
              ]
            : [
                { value: 'on', word: 'on it' },
                { value: 'under', word: 'under it' },
              ]
        }
        onChange={(side) => set({ side })}
      />
      <QuantityField
        label="Room to it"
        unit={unit}
        least={-LIMITS.sheetMostMm}
        most={LIMITS.sheetMostMm}
        stepMm={unit === 'mm' ? 0.5 : 25.4 / 32}
        value={along.distance}
        onChange={(distance) => set({ distance }, 'distance')}
      />
      <QuantityField
        label="Moved on by"
        unit={unit}
        least={-most}
        most={most}
        value={along.start}
        onChange={(start) => set({ start }, 'start')}
      />
      <Choice
        label="Letters are"
        value={along.letters}
        options={[
          { value: 'following', word: 'turned', title: 'Turned as the line runs' },
          { value: 'upright', word: 'upright' },
        ]}
        onChange={(letters) => set({ letters })}
      />
      {!isClosed && along.line.kind !== 'wave' && (
        <Switch label="Run the other way" on={along.reversed} onChange={(reversed) => set({ reversed })} />
      )}
      {isRound && member.text.includes('\n') && (
        <Switch label="Last line along the bottom" on={along.bottom} onChange={(bottom) => set({ bottom })} />
      )}
    </>
  );
}
