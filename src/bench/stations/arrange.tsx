/** Arranging: what is chosen on the sheet, on another thing or in a region pointed at; several parts among themselves. */
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
import { moveChosen } from '@/core/commands/chosen';
import { group } from '@/core/commands/parts';
import { memberWords, partWords } from '@/core/document/part-words';
import type { Job } from '@/core/document/schema';
import { type Box, boxCentre, EMPTY_BOX, isEmptyBox, uniteBoxes } from '@/core/geometry/point';
import { alignTo, type Edge, levelBaselines, type Move, spaceEqually } from '@/core/job/arrange';
import { Row } from '@/ui/fields';
import { Heading } from '@/ui/heading';
import type { JobView, PartView } from '@/worker/view';
import styles from '../bench.module.css';
import { useBeside } from '../beside';
import { chosenBox, chosenIn, moveBy } from '../chosen';
import { ownMiddle } from '../seen';
import { dispatch, select, selectedParts, setPointing, useBench } from '../store';
import { whenComputed } from '../when-computed';
import { PlaceEditor } from './place-editor';

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

/** The bounds of what something is arranged to: the sheet, another part or another member of its own. */
function targetBox(target: string, job: Job, view: JobView | null): Box {
  if (target === 'sheet') return { minX: 0, minY: 0, maxX: job.sheet.width, maxY: job.sheet.height };
  for (const part of view?.parts ?? []) {
    if (`part ${part.id}` === target) return part.size;
    for (const member of part.members) if (`member ${part.id} ${member.id}` === target) return member.box;
  }
  return EMPTY_BOX;
}

/** For one part, or a member of one. */
export function ArrangeChosen() {
  const job = useBench((s) => s.job);
  const view = useBeside((view) => view);
  const selection = useBench((s) => s.selection);
  const pointing = useBench((s) => s.pointing === 'region');
  const [target, setTarget] = useState('sheet');
  const chosen = chosenIn(selection, view);
  const part = job.parts.find((p) => p.id === selection.partId);
  if (!part || isEmptyBox(chosenBox(chosen, view))) return null;
  const to = targetBox(target, job, view);
  /** Moves it by what follows from its bounds and those it is arranged to, as they are once computed. */
  const arrange = (by: (own: Box, to: Box) => Move) =>
    whenComputed(() => {
      const now = useBench.getState();
      const own = chosenBox(chosen, now.view);
      const toNow = targetBox(target, now.job, now.view);
      if (isEmptyBox(own) || isEmptyBox(toNow)) return;
      const { dx, dy } = by(own, toNow);
      moveBy(chosen, dx, dy);
    });
  const siblings = chosen.memberId === null ? [] : part.members.filter((m) => m.id !== chosen.memberId);
  const others = job.parts.filter((p) => p.id !== part.id);
  return (
    <>
      <Heading>Arrange</Heading>
      <Row label="On">
        <Form.Select size="sm" aria-label="Arrange on" value={target} onChange={(e) => setTarget(e.target.value)}>
          <option value="sheet">the sheet</option>
          {siblings.map((m) => (
            <option key={m.id} value={`member ${part.id} ${m.id}`}>
              {memberWords(m)} (in this part)
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
          onClick={() => setPointing(pointing ? null : 'region')}
        >
          <Crosshair size={15} className="me-1" aria-hidden="true" />
          Centre where I point
        </Button>
      </div>
    </>
  );
}

const drawnParts = (ids: readonly string[], view: JobView | null): PartView[] =>
  ids.flatMap((id) => {
    const part = view?.parts.find((p) => p.id === id);
    return part && !isEmptyBox(part.size) ? [part] : [];
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
  const view = useBeside((view) => view);
  const [refusal, setRefusal] = useState<string | null>(null);
  const ids = selectedParts(selection);
  const drawn = drawnParts(ids, view);
  const withLines = baselinesOf(drawn);
  /** Moves the parts by what follows from their bounds, as they are once computed. */
  const arrange = (by: (parts: readonly PartView[]) => readonly (readonly [string, Move])[]) =>
    whenComputed(() => {
      const moves = by(drawnParts(ids, useBench.getState().view));
      dispatch((now) =>
        moves.reduce((job, [id, { dx, dy }]) => moveChosen(job, { partIds: [id], memberId: null }, dx, dy), now),
      );
    });
  const each = (moves: (boxes: readonly Box[]) => readonly Move[]) =>
    arrange((parts) => {
      const made = moves(parts.map((p) => p.size));
      return parts.map((p, i) => [p.id, made[i] as Move] as const);
    });
  return (
    <>
      <PlaceEditor />
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
          const done = group(useBench.getState().job, ids, ownMiddle);
          dispatch(() => done.job);
          setRefusal(done.sentence);
          if (!done.sentence && ids[0]) select(ids[0]);
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
