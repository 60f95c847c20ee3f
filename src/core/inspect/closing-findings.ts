/** What stays open in brought-in drawings: gaps that are sure, places to be asked about, lines that end nowhere near another. */
import type { Artwork, Part } from '../document/schema';
import { regionBox } from '../geometry/path';
import { applyMatrix, type Box, EMPTY_BOX, growBox, type Point, uniteBoxes } from '../geometry/point';
import { LIMITS } from '../limits';
import type { Gap } from '../prepare/closing/closing';
import type { PreparedMember, PreparedPart } from '../prepare/prepared';
import { formatLength, type LengthUnit } from '../units/quantity';
import { type Draft, draft } from './draft';

const around = (points: readonly Point[]): Box =>
  growBox(
    points.reduce<Box>((box, p) => uniteBoxes(box, { minX: p.x, minY: p.y, maxX: p.x, maxY: p.y }), EMPTY_BOX),
    1,
  );

/** Of a part worked on by hand only what is open now; how its drawings would close does not show. */
export function closingFindings(part: Part, prepared: PreparedPart, unit: LengthUnit): Draft[] {
  const gaps = prepared.handMade
    ? []
    : part.members.flatMap((member, i) =>
        member.kind === 'artwork' ? drawingFindings(part, member, prepared.members[i] as PreparedMember, unit) : [],
      );
  const isAsked = gaps.some(({ finding }) => finding.code !== 'shared-edges');
  return isAsked ? gaps : [...gaps, ...openLines(part, prepared)];
}

function openLines(part: Part, { lines }: PreparedPart): Draft[] {
  const n = lines.length;
  if (n === 0) return [];
  const sentence =
    n === 1
      ? 'A line does not close: it is cut as it is, and nothing comes off.'
      : `${n.toLocaleString('en')} lines do not close: they are cut as they are, and nothing comes off.`;
  const at = { partId: part.id, box: growBox(regionBox(lines), 1), detail: part.id };
  return [draft('open-lines', 'caution', 'close', sentence, at)];
}

function drawingFindings(part: Part, member: Artwork, prepared: PreparedMember, unit: LengthUnit): Draft[] {
  const { closing, matrix } = prepared;
  if (!closing) return [];
  const boxOf = (gaps: readonly Gap[]): Box =>
    around(gaps.flatMap((gap) => [gap.from, gap.to]).map((p) => applyMatrix(matrix, p)));
  const at = { partId: part.id, memberId: member.id };
  const sure = closing.gaps.filter((gap) => gap.state === 'sure').sort((a, b) => b.sizeMm - a.sizeMm);
  const places = placesOf(closing.gaps.filter((gap) => gap.state === 'asked'));
  const out: Draft[] = sure.slice(0, LIMITS.gapsNamed).map((gap) =>
    draft('gap', 'caution', 'close', `Gap of ${formatLength(gap.sizeMm, unit)} in an outline.`, {
      ...at,
      box: boxOf([gap]),
      detail: `${member.id}:${gap.key}`,
      mend: { kind: 'close', memberId: member.id, gap: gap.key },
    }),
  );
  for (const { gaps, ends } of places.slice(0, LIMITS.gapsNamed))
    out.push(
      draft('asked-gap', 'caution', 'close', `${ends} ends come close here: which belong together?`, {
        ...at,
        box: boxOf(gaps),
        detail: `${member.id}:${gaps[0]?.key ?? ''}`,
      }),
    );
  const more = Math.max(0, sure.length - LIMITS.gapsNamed) + Math.max(0, places.length - LIMITS.gapsNamed);
  if (more > 0)
    out.push(
      draft('more-gaps', 'caution', 'close', `${more.toLocaleString('en')} more gaps in “${member.name}”.`, {
        ...at,
        box: prepared.box,
        detail: member.id,
      }),
    );
  if (closing.shared > 0)
    out.push(
      draft(
        'shared-edges',
        'caution',
        'close',
        closing.shared === 1
          ? `Two outlines of “${member.name}” have an edge in common: it is cut twice.`
          : `Outlines of “${member.name}” have ${closing.shared.toLocaleString('en')} edges in common: each is cut twice.`,
        { ...at, box: prepared.box, detail: member.id },
      ),
    );
  return out;
}

/** Gaps that share ends are one place to be asked about. */
function placesOf(gaps: readonly Gap[]): { gaps: Gap[]; ends: number }[] {
  const placeOf = new Map<string, { gaps: Gap[]; ends: Set<string> }>();
  for (const gap of gaps) {
    const ends = gap.key.split('~');
    const met = [...new Set(ends.flatMap((end) => placeOf.get(end) ?? []))];
    const place = {
      gaps: [...met.flatMap((m) => m.gaps), gap],
      ends: new Set([...met.flatMap((m) => [...m.ends]), ...ends]),
    };
    for (const end of place.ends) placeOf.set(end, place);
  }
  return [...new Set(placeOf.values())].map((place) => ({ gaps: place.gaps, ends: place.ends.size }));
}
