'use client';

/** Arranging: a member on the sheet, another member or a region pointed at; several parts among themselves. */
import {
  AlignCenterHorizontal,
  AlignCenterVertical,
  AlignEndHorizontal,
  AlignEndVertical,
  AlignHorizontalSpaceAround,
  AlignStartHorizontal,
  AlignStartVertical,
  AlignVerticalSpaceAround,
  Baseline,
  Combine,
  Crosshair,
} from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { Job } from '@/core/document/schema';
import { type Box, boxCentre, EMPTY_BOX, isEmptyBox, uniteBoxes } from '@/core/geometry/point';
import { alignTo, type Edge, levelBaselines, type Move, spaceEqually } from '@/core/job/arrange';
import { moveMember, scaleMember } from '@/core/job/place';
import { NumberField, Row } from '@/ui/fields';
import { Heading } from '@/ui/heading';
import type { JobView, PartView } from '@/worker/view';
import styles from '../bench.module.css';
import { groupParts, memberOf, moveWholePart } from '../edits';
import { partWords } from '../part-words';
import { change, pointAt, select, selectedParts, useBench, whenComputed } from '../store';

const EDGES: readonly { readonly edge: Edge; readonly words: string; readonly icon: typeof Baseline }[] = [
  { edge: 'left', words: 'Left edges', icon: AlignStartVertical },
  { edge: 'centre', words: 'Centre across', icon: AlignCenterVertical },
  { edge: 'right', words: 'Right edges', icon: AlignEndVertical },
  { edge: 'bottom', words: 'Bottom edges', icon: AlignEndHorizontal },
  { edge: 'middle', words: 'Middle, upright', icon: AlignCenterHorizontal },
  { edge: 'top', words: 'Top edges', icon: AlignStartHorizontal },
];

function EdgeButtons({ onAlign, disabled }: { onAlign: (edge: Edge) => void; disabled?: boolean }) {
  return (
    <div className={styles.tools}>
      {EDGES.map(({ edge, words, icon: Icon }) => (
        <Button
          key={edge}
          variant="plain"
          aria-label={words}
          title={words}
          disabled={disabled}
          onClick={() => onAlign(edge)}
        >
          <Icon size={17} aria-hidden="true" />
        </Button>
      ))}
    </div>
  );
}

const clean = (mm: number): number => Math.round(mm * 1e4) / 1e4;

const movePart = (job: Job, id: string, { dx, dy }: Move) => moveWholePart(job, id, clean(dx), clean(dy));

/** The bounds of what a member is arranged to: the sheet, another part or another member of its own. */
function targetBox(target: string, job: Job, view: JobView | null): Box {
  if (target === 'sheet') return { minX: 0, minY: 0, maxX: job.sheet.width, maxY: job.sheet.height };
  for (const part of view?.parts ?? []) {
    if (`part ${part.id}` === target) return part.box;
    for (const member of part.members) if (`member ${part.id} ${member.id}` === target) return member.box;
  }
  return EMPTY_BOX;
}

/** For one selected member. */
export function ArrangeMember({ partId, memberId }: { partId: string; memberId: string }) {
  const job = useBench((s) => s.job);
  const view = useBench((s) => s.view);
  const pointing = useBench((s) => s.pointing === 'region');
  const [target, setTarget] = useState('sheet');
  const [factor, setFactor] = useState(2);
  const part = job.parts.find((p) => p.id === partId);
  const box = view?.parts.find((p) => p.id === partId)?.members.find((m) => m.id === memberId)?.box;
  if (!part || !box || isEmptyBox(box)) return null;
  const to = targetBox(target, job, view);
  /** Moves the member by what follows from its bounds and those it is arranged to, as they are once computed. */
  const arrange = (by: (own: Box, to: Box) => Move) =>
    whenComputed(() => {
      const now = useBench.getState();
      const own = now.view?.parts.find((p) => p.id === partId)?.members.find((m) => m.id === memberId)?.box;
      const toNow = targetBox(target, now.job, now.view);
      if (!own || isEmptyBox(own) || isEmptyBox(toNow)) return;
      const { dx, dy } = by(own, toNow);
      change((draft) => {
        const member = memberOf(draft, partId, memberId);
        if (member) moveMember(member, clean(dx), clean(dy));
      });
    });
  const siblings = part.members.filter((m) => m.id !== memberId);
  const others = job.parts.filter((p) => p.id !== partId);
  return (
    <>
      <Heading>Arrange</Heading>
      <Row label="On">
        <Form.Select size="sm" aria-label="Arrange on" value={target} onChange={(e) => setTarget(e.target.value)}>
          <option value="sheet">the sheet</option>
          {siblings.map((m) => (
            <option key={m.id} value={`member ${partId} ${m.id}`}>
              {m.kind === 'lettering' ? m.text.trim().split('\n')[0] || 'lettering' : m.kind} (in this part)
            </option>
          ))}
          {others.map((p) => (
            <option key={p.id} value={`part ${p.id}`}>
              {partWords(p)}
            </option>
          ))}
        </Form.Select>
      </Row>
      <EdgeButtons disabled={isEmptyBox(to)} onAlign={(edge) => arrange((own, on) => alignTo(own, on, edge))} />
      <div className={styles.buttons}>
        <Button
          variant="plain"
          disabled={isEmptyBox(to)}
          onClick={() =>
            arrange((own, on) => {
              const [from, at] = [boxCentre(own), boxCentre(on)];
              return { dx: at.x - from.x, dy: at.y - from.y };
            })
          }
        >
          Centre
        </Button>
        <Button
          variant="plain"
          active={pointing}
          aria-pressed={pointing}
          title="Then press on the sheet, inside the panel or the gap it is to be centred in"
          onClick={() => pointAt(pointing ? null : 'region')}
        >
          <Crosshair size={15} className="me-1" aria-hidden="true" />
          Centre where I point
        </Button>
      </div>
      <div className={styles.scale}>
        <NumberField
          label="Scale by"
          suffix="×"
          step={0.1}
          least={0.01}
          most={100}
          value={factor}
          onChange={setFactor}
        />
        <Button
          variant="plain"
          aria-label="Scale now"
          onClick={() =>
            change((draft) => {
              const member = memberOf(draft, partId, memberId);
              if (member) scaleMember(member, factor, boxCentre(box));
            })
          }
        >
          Scale
        </Button>
      </div>
    </>
  );
}

const drawnParts = (ids: readonly string[], view: JobView | null): PartView[] =>
  ids.flatMap((id) => {
    const part = view?.parts.find((p) => p.id === id);
    return part && !isEmptyBox(part.box) ? [part] : [];
  });

/** The baseline of a part is that of the last line of its first lettering. */
const baselinesOf = (parts: readonly PartView[]): { readonly id: string; readonly baseline: number }[] =>
  parts.flatMap((part) => {
    const baseline = part.members.find((m) => m.baselines.length > 0)?.baselines.at(-1);
    return baseline === undefined ? [] : [{ id: part.id, baseline }];
  });

/** For several selected parts. */
export function ArrangeParts() {
  const selection = useBench((s) => s.selection);
  const job = useBench((s) => s.job);
  const view = useBench((s) => s.view);
  const [refusal, setRefusal] = useState<string | null>(null);
  const ids = selectedParts(selection);
  const drawn = drawnParts(ids, view);
  const withLines = baselinesOf(drawn);
  /** Moves the parts by what follows from their bounds, as they are once computed. */
  const arrange = (by: (parts: readonly PartView[]) => readonly (readonly [string, Move])[]) =>
    whenComputed(() => {
      const moves = by(drawnParts(ids, useBench.getState().view));
      change((draft) => {
        for (const [id, move] of moves) movePart(draft, id, move);
      });
    });
  const each = (moves: (boxes: readonly Box[]) => readonly Move[]) =>
    arrange((parts) => {
      const made = moves(parts.map((p) => p.box));
      return parts.map((p, i) => [p.id, made[i] as Move] as const);
    });
  return (
    <>
      <Heading beside={`${ids.length} parts`}>Arrange</Heading>
      <p className="nf-small nf-muted">
        To the first one selected, {partWords(job.parts.find((p) => p.id === ids[0]) as Job['parts'][number])}.
      </p>
      <EdgeButtons
        disabled={drawn.length < 2}
        onAlign={(edge) => each((boxes) => boxes.map((b) => alignTo(b, boxes[0] as Box, edge)))}
      />
      <div className={styles.buttons}>
        <Button
          variant="plain"
          disabled={drawn.length < 3}
          title="Equal gaps across; the first and the last stay"
          onClick={() => each((boxes) => spaceEqually(boxes, 'across'))}
        >
          <AlignHorizontalSpaceAround size={15} className="me-1" aria-hidden="true" />
          Equal gaps
        </Button>
        <Button
          variant="plain"
          disabled={drawn.length < 3}
          title="Equal gaps upright; the first and the last stay"
          onClick={() => each((boxes) => spaceEqually(boxes, 'upright'))}
        >
          <AlignVerticalSpaceAround size={15} className="me-1" aria-hidden="true" />
          Equal gaps, upright
        </Button>
      </div>
      <div className={styles.buttons}>
        <Button
          variant="plain"
          disabled={withLines.length < 2}
          onClick={() =>
            arrange((parts) => {
              const lines = baselinesOf(parts);
              const moves = levelBaselines(lines.map((l) => l.baseline));
              return lines.map((l, i) => [l.id, moves[i] as Move] as const);
            })
          }
        >
          <Baseline size={15} className="me-1" aria-hidden="true" />
          Level baselines
        </Button>
        <Button
          variant="plain"
          onClick={() =>
            each((boxes) => {
              const all = boxes.reduce(uniteBoxes, EMPTY_BOX);
              const sheet = targetBox('sheet', job, null);
              const [{ dx }, { dy }] = [alignTo(all, sheet, 'centre'), alignTo(all, sheet, 'middle')];
              return boxes.map(() => ({ dx, dy }));
            })
          }
        >
          Centre on the sheet
        </Button>
      </div>
      <Button
        variant="plain"
        className="w-100 mt-2"
        onClick={() => {
          let sentence: string | null = null;
          change((draft) => {
            sentence = groupParts(draft, ids);
          });
          setRefusal(sentence);
          if (!sentence && ids[0]) select(ids[0]);
        }}
      >
        <Combine size={15} className="me-1" aria-hidden="true" />
        Make one part of them
      </Button>
      {refusal && (
        <p role="alert" className="nf-small text-danger">
          {refusal}
        </p>
      )}
      <Button variant="word" className="mt-3" onClick={() => select(null)}>
        Back to the sheet
      </Button>
    </>
  );
}
