'use client';

/** Exact place and size of the selected member, measured on what is drawn. */
import { FlipHorizontal2 } from 'lucide-react';
import Button from 'react-bootstrap/Button';
import type { Member } from '@/core/document/schema';
import { mapLengths } from '@/core/document/shapes';
import { boxCentre, isEmptyBox } from '@/core/geometry/point';
import { mirrorMember, moveMember, scaleMember, turnMember } from '@/core/job/place';
import { LIMITS } from '@/core/limits';
import { NumberField, QuantityField } from '@/ui/fields';
import { Heading } from '@/ui/heading';
import styles from '../bench.module.css';
import { memberOf } from '../edits';
import { change, useBench } from '../store';

const clean = (mm: number): number => Math.round(mm * 1e4) / 1e4;

export function PlaceEditor({ partId, member }: { partId: string; member: Member }) {
  const unit = useBench((s) => s.job.units);
  const view = useBench((s) => s.view?.parts.find((p) => p.id === partId)?.members.find((m) => m.id === member.id));
  if (!view || isEmptyBox(view.box)) return null;
  const { box } = view;
  const edit = (recipe: (m: Member) => void, merge: string) =>
    change((job) => {
      const draft = memberOf(job, partId, member.id);
      if (!draft) return;
      recipe(draft);
      draft.placement.x = clean(draft.placement.x);
      draft.placement.y = clean(draft.placement.y);
      mapLengths(draft, clean);
    }, `${merge}:${member.id}`);
  const corner = { x: box.minX, y: box.minY };
  const centre = boxCentre(box);
  const most = LIMITS.sheetMostMm;
  const size = (mm: number, now: number, merge: string) => edit((m) => scaleMember(m, mm / now, corner), merge);
  return (
    <>
      <Heading beside="lower left corner, from the sheet’s">Place</Heading>
      <div className={styles.pair}>
        <QuantityField
          bare
          label="From the left"
          prefix="x"
          unit={unit}
          value={clean(box.minX)}
          least={-most}
          most={most}
          onChange={(mm) => edit((m) => moveMember(m, mm - box.minX, 0), 'x')}
        />
        <QuantityField
          bare
          label="From the bottom"
          prefix="y"
          unit={unit}
          value={clean(box.minY)}
          least={-most}
          most={most}
          onChange={(mm) => edit((m) => moveMember(m, 0, mm - box.minY), 'y')}
        />
        <QuantityField
          bare
          label="Width as drawn"
          prefix="w"
          unit={unit}
          value={clean(box.maxX - box.minX)}
          least={0.1}
          most={most}
          onChange={(mm) => size(mm, box.maxX - box.minX, 'w')}
        />
        <QuantityField
          bare
          label="Height as drawn"
          prefix="h"
          unit={unit}
          value={clean(box.maxY - box.minY)}
          least={0.1}
          most={most}
          onChange={(mm) => size(mm, box.maxY - box.minY, 'h')}
        />
        <NumberField
          bare
          label="Turn"
          prefix="↺"
          suffix="°"
          step={1}
          value={member.placement.turn}
          least={-360}
          most={360}
          onChange={(deg) => edit((m) => turnMember(m, deg - m.placement.turn, centre), 'turn')}
        />
        <Button
          variant="plain"
          aria-pressed={member.placement.mirror}
          active={member.placement.mirror}
          onClick={() => edit((m) => mirrorMember(m, centre.x), 'mirror')}
          title="Mirror left to right, for engraving from behind"
        >
          <FlipHorizontal2 size={15} className="me-1" aria-hidden="true" />
          Mirror
        </Button>
      </div>
    </>
  );
}
