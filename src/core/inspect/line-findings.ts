/** What is found about lines and dots: uneven places of centerlines, letters too small for their tip, dots on each other. */
import type { Operation, Part, Work } from '../document/schema';
import { growBox, type Point } from '../geometry/point';
import { LIMITS } from '../limits';
import type { PreparedPart } from '../prepare/prepared';
import type { LetterLines } from '../toolpath/centerline/part-lines';
import type { Uneven } from '../toolpath/centerline/uneven';
import type { Linework } from '../toolpath/linework';
import { formatLength, type LengthUnit } from '../units/quantity';
import { type Draft, draft, partTitle } from './draft';

const around = ({ x, y }: Point, r: number) => growBox({ minX: x, minY: y, maxX: x, maxY: y }, r);

export function lineFindings(
  part: Part,
  prepared: PreparedPart,
  { lines, dots }: Linework,
  operations: ReadonlyMap<string, Operation>,
  unit: LengthUnit,
): Draft[] {
  const out: Draft[] = [];
  if (lines) out.push(...unevenFindings(part, lines.letters));
  if (lines && lines.left > 0)
    out.push(
      draft(
        'too-many-traced',
        'fault',
        'fill',
        `${lines.left.toLocaleString('en')} letters of ${partTitle(part)} have no middle line: at most ${LIMITS.lettersTraced.toLocaleString('en')} are traced.`,
        { partId: part.id, box: prepared.box, detail: 'traced' },
      ),
    );
  if (dots) out.push(...dotFindings(part, prepared, dots, unit));
  out.push(...smallLetters(part, prepared, operations, unit));
  return out;
}

/** What each kind of place is called, and how grave it is. */
function sentenceOf({ what, turnDeg }: Uneven, letter: LetterLines, times: number): string {
  const name = letter.text ? `“${letter.text}”` : 'the shape';
  const often = times > 1 ? `, ${times.toLocaleString('en')} times` : '';
  if (what === 'lost') return `A piece of ${name} has no middle line${often}.`;
  if (what === 'kink') return `The middle line of ${name} has a kink of ${turnDeg.toFixed(0)}°${often}.`;
  if (what === 'loop') return `The loop of ${name} is nearly filled: see whether it is to stay one${often}.`;
  return `How the strokes of ${name} go on here is not sure${often}.`;
}
const RANK = { lost: 0, loop: 1, unsure: 2, kink: 3 } as const;

/** The same place of letters that look alike is told once, with how often it comes. */
function unevenFindings(part: Part, letters: readonly LetterLines[]): Draft[] {
  const kinds = new Map<string, { readonly letter: LetterLines; times: number }>();
  for (const letter of letters) {
    const kind = letter.alike ?? letter.key;
    const known = kinds.get(kind);
    if (known) known.times++;
    else kinds.set(kind, { letter, times: 1 });
  }
  const places = [...kinds.values()].flatMap(({ letter, times }) =>
    letter.uneven.map((place, i) => ({ letter, times, place, i })),
  );
  places.sort((a, b) => RANK[a.place.what] - RANK[b.place.what] || b.place.turnDeg - a.place.turnDeg);
  const out = places.slice(0, LIMITS.unevenNamed).map(({ letter, times, place, i }) =>
    draft('uneven-line', place.what === 'lost' ? 'caution' : 'note', 'fill', sentenceOf(place, letter, times), {
      partId: part.id,
      box: around(place, 3 * place.r),
      detail: `${letter.key}:${place.what}:${i}`,
      mend: { kind: 'lines', letter: letter.key },
    }),
  );
  const more = places.length - out.length;
  if (more > 0)
    out.push(
      draft(
        'more-uneven',
        'note',
        'fill',
        `${more.toLocaleString('en')} more place${more === 1 ? '' : 's'} of the middle lines of ${partTitle(part)} to look at.`,
        { partId: part.id, detail: 'uneven' },
      ),
    );
  return out;
}

function dotFindings(
  part: Part,
  prepared: PreparedPart,
  dots: NonNullable<Linework['dots']>,
  unit: LengthUnit,
): Draft[] {
  const at = { partId: part.id, box: prepared.box };
  if (dots.tooMany)
    return [
      draft(
        'too-many-dots',
        'fault',
        'fill',
        `${partTitle(part)} would have more than ${LIMITS.dots.toLocaleString('en')} dots: none is made. Space them wider.`,
        { ...at, detail: 'many' },
      ),
    ];
  const out = dots.clashes
    .slice(0, LIMITS.clashesNamed)
    .map((p) =>
      draft(
        'dots-touch',
        'caution',
        'fill',
        `Two dots of ${formatLength(dots.diameter, unit)} lie on each other here.`,
        { partId: part.id, box: around(p, 3 * dots.diameter), detail: `${p.x.toFixed(1)},${p.y.toFixed(1)}` },
      ),
    );
  const more = dots.clashes.length - out.length;
  if (more > 0)
    out.push(
      draft(
        'more-dots-touch',
        'caution',
        'fill',
        `${more.toLocaleString('en')} more dots of ${partTitle(part)} lie on others.`,
        {
          ...at,
          detail: 'clashes',
        },
      ),
    );
  if (dots.idle > 0)
    out.push(
      draft(
        'dot-gone',
        'note',
        'fill',
        dots.idle === 1
          ? `A dot of ${partTitle(part)} that was changed by hand is no longer there.`
          : `${dots.idle.toLocaleString('en')} dots of ${partTitle(part)} that were changed by hand are no longer there.`,
        { ...at, detail: 'idle' },
      ),
    );
  return out;
}

/** Letters of one-line faces lower than this many tips run together. */
const LEAST_TIPS = 6;

function smallLetters(
  part: Part,
  prepared: PreparedPart,
  operations: ReadonlyMap<string, Operation>,
  unit: LengthUnit,
): Draft[] {
  const by = (what: Work['what']) => part.work.filter((w) => w.what === what).map((w) => operations.get(w.operation));
  const out: Draft[] = [];
  const isLines = prepared.outlines.length === 0 && prepared.lines.length > 0;
  if (isLines && part.work.length > 0 && part.work.every((w) => w.what === 'fill'))
    out.push(
      draft(
        'lines-not-filled',
        'caution',
        'assign',
        `${partTitle(part)} is lines only: there is no inside to engrave, and nothing would be in the file.`,
        { partId: part.id, box: prepared.box, detail: 'lines' },
      ),
    );
  const tip = Math.max(0, ...by('outline').map((o) => o?.tip ?? 0));
  if (tip === 0) return out;
  part.members.forEach((member, i) => {
    const ready = prepared.members[i];
    const height = ready?.layout?.capHeightMm;
    if (member.kind !== 'lettering' || !ready || height === undefined || ready.outlines.length > 0) return;
    if (height >= LEAST_TIPS * tip) return;
    out.push(
      draft(
        'small-for-tip',
        'caution',
        'compose',
        `Letters ${formatLength(height, unit)} high run together under a tip of ${formatLength(tip, unit)}: take at least ${formatLength(LEAST_TIPS * tip, unit)}.`,
        { partId: part.id, memberId: member.id, box: ready.box, detail: member.id },
      ),
    );
  });
  return out;
}
