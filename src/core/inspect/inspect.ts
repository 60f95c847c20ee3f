/** The rules that yield findings from a job and its prepared parts. Each rule is one function. */

import type { Job, Member, Operation, Part, Work } from '../document/schema';
import { sticks } from '../document/sticks';
import { type Box, EMPTY_BOX, isEmptyBox, uniteBoxes } from '../geometry/point';
import { LIMITS } from '../limits';
import { pieceKeys } from '../prepare/pieces';
import type { PreparedMember, PreparedPart } from '../prepare/prepared';
import type { Linework } from '../toolpath/linework';
import { formatLength, type LengthUnit } from '../units/quantity';
import { bridgeFindings, bridgeFor, unbridged } from './bridge-findings';
import { closingFindings } from './closing-findings';
import { type Draft, draft, partTitle } from './draft';
import { filledOver, fillFindings } from './fill-findings';
import type { Finding, Mend } from './finding';
import { lineFindings } from './line-findings';
import { Names, startSentence } from './names';
import type { Strength, Stretch } from './strength';

function memberFindings(part: Part, member: Member, prepared: PreparedMember): Draft[] {
  const at = { partId: part.id, memberId: member.id, detail: member.id, box: prepared.box };
  const trouble = prepared.trouble;
  const out: Draft[] = [];
  if (trouble?.kind === 'no words')
    out.push(draft('no-words', 'caution', 'compose', `${partTitle(part)} has lettering without words.`, at));
  if (trouble?.kind === 'too many characters')
    out.push(
      draft(
        'too-many-characters',
        'fault',
        'compose',
        `This lettering has ${trouble.count.toLocaleString('en')} characters; up to ${LIMITS.letteringCharacters.toLocaleString('en')} are prepared at once. The words are kept; share them out over several letterings.`,
        at,
      ),
    );
  if (trouble?.kind === 'no typeface')
    out.push(
      draft(
        'no-typeface',
        'fault',
        'compose',
        `The typeface ${trouble.face} can’t be used: ${trouble.sentence} The words are kept.`,
        at,
      ),
    );
  if (trouble?.kind === 'no drawing' && member.kind === 'artwork')
    out.push(
      draft(
        'no-drawing',
        'fault',
        'compose',
        `The drawing ${member.name ? `“${member.name}” ` : ''}can’t be used: ${trouble.sentence} Its place is kept.`,
        at,
      ),
    );
  if (trouble?.kind === 'no part')
    out.push(draft('no-part', 'fault', 'compose', `The part that ${partTitle(part)} copies is no longer there.`, at));
  if (trouble?.kind === 'copies itself')
    out.push(
      draft('copies-itself', 'fault', 'compose', `${partTitle(part)} copies itself, straight or by way of others.`, at),
    );
  if (trouble?.kind === 'too many segments')
    out.push(
      draft(
        'too-many-segments',
        'fault',
        'compose',
        `The copies in ${partTitle(part)} have ${trouble.count.toLocaleString('en')} segments; up to ${LIMITS.copiedSegments.toLocaleString('en')} are copied.`,
        at,
      ),
    );
  if (member.kind === 'lettering' && member.insteadOf !== null)
    out.push(
      draft(
        'words-set-anew',
        'note',
        'compose',
        `${partTitle(part)}: words from a file${member.insteadOf ? ` in ${member.insteadOf}` : ''} are set in ${member.face} here.`,
        at,
      ),
    );
  if (prepared.missing.length > 0 && member.kind === 'lettering') {
    const shown = prepared.missing
      .slice(0, 12)
      .map((c) => (c.trim() === '' ? `U+${c.codePointAt(0)?.toString(16)}` : c));
    const more = prepared.missing.length - shown.length;
    out.push(
      draft(
        'missing-characters',
        'fault',
        'compose',
        `${member.face} has no ${shown.join(' ')}${more > 0 ? ` and ${more} more` : ''}; ${prepared.missing.length > 1 ? 'they are' : 'it is'} left out.`,
        { ...at, detail: `${member.id}:${prepared.missing.join('')}` },
      ),
    );
  }
  return out;
}

/** How far a box sticks out of the sheet, in mm; 0 when it lies on it. */
function stickingOut(box: Box, job: Job): number {
  return Math.max(0, -box.minX, -box.minY, box.maxX - job.sheet.width, box.maxY - job.sheet.height);
}

/** An overall width is met to this. */
const OVERALL_MM = 0.01;
/** Rounding of coordinates is not sticking out. */
const OFF_SHEET_MM = 1e-3;

function placeFindings(part: Part, prepared: PreparedPart, job: Job, unit: LengthUnit): Draft[] {
  if (isEmptyBox(prepared.box)) {
    const silent = prepared.members.every((m) => m.trouble === null);
    return silent && part.members.length > 0
      ? [
          draft('empty-part', 'caution', 'compose', `Nothing is left of ${partTitle(part)}.`, {
            partId: part.id,
            detail: part.id,
          }),
        ]
      : [];
  }
  const { overall } = prepared.notes;
  const sized =
    overall && Math.abs(overall.gotMm - overall.askedMm) > OVERALL_MM
      ? [
          draft(
            'overall-width',
            'fault',
            'compose',
            `${partTitle(part)} can’t be ${formatLength(overall.askedMm, unit)} wide overall: what does not grow with it leaves ${formatLength(overall.gotMm, unit)}.`,
            { partId: part.id, detail: part.id, box: prepared.box },
          ),
        ]
      : [];
  const out = stickingOut(prepared.box, job);
  if (out <= OFF_SHEET_MM) return sized;
  return [
    ...sized,
    draft(
      'off-sheet',
      'fault',
      'compose',
      `${partTitle(part)} sticks out of the sheet by ${formatLength(out, unit)}.`,
      {
        partId: part.id,
        detail: part.id,
        box: prepared.box,
      },
    ),
  ];
}

/** Holding is asked only of a part that is cut, or that nothing has been assigned to yet. */
const isCut = (part: Part, operations: ReadonlyMap<string, Operation>): boolean =>
  part.work.length === 0 || part.work.some((w) => w.what === 'outline' && operations.get(w.operation)?.kind === 'cut');

function holdFindings(part: Part, prepared: PreparedPart, job: Job): Draft[] {
  if (prepared.overlaps)
    return [
      draft(
        'overlaps',
        'fault',
        'close',
        `Letters of ${partTitle(part)} overlap and are not welded: every overlap would be cut.`,
        { partId: part.id, detail: part.id, box: prepared.box },
      ),
    ];
  const onPurpose = new Set(prepared.notes.leftLoose);
  const keys = onPurpose.size > 0 ? pieceKeys(prepared.pieces, prepared.sources) : [];
  const away = prepared.pieces.filter((piece, i) => piece.kind !== 'main' && !onPurpose.has(keys[i] as string));
  const names = new Names(prepared);
  const named = away.slice(0, LIMITS.piecesNamed).map((piece): Draft => {
    const name = names.piece(piece);
    const where = { partId: part.id, box: piece.box, detail: name };
    const why = piece.kind === 'island' ? unbridged(piece, name, prepared, job.units) : null;
    if (why) return draft('unbridged', 'fault', 'hold', why, where);
    return piece.kind === 'island'
      ? draft('island', 'fault', 'hold', `${startSentence(name)} will drop out.`, {
          ...where,
          mend: bridgeFor(piece, prepared),
        })
      : draft('loose', 'fault', 'hold', `${startSentence(name)} is not attached.`, where);
  });
  const more = away.slice(LIMITS.piecesNamed);
  if (more.length === 0) return named;
  const box = more.reduce<Box>((all, piece) => uniteBoxes(all, piece.box), EMPTY_BOX);
  const sentence = `${more.length} more ${more.length === 1 ? 'piece' : 'pieces'} of ${partTitle(part)} would come away.`;
  return [...named, draft('more-pieces', 'fault', 'hold', sentence, { partId: part.id, box, detail: part.id })];
}

/** What a thin place or a gap lies in: "Stroke of l", "The stock in E", "Between r and n". */
function placeName(
  stretch: Stretch,
  part: PreparedPart,
  names: Names,
): { readonly of: string | null; readonly between: string | null; readonly isStock: boolean } {
  const isStock = stretch.labels.some((label) => part.sources[label]?.takesAway);
  const labels = [...stretch.labels].sort((p, q) => p - q);
  const [a, b] = labels.map((label) => (label < 0 ? null : names.source(label)));
  if (a && b && a !== b) return { of: null, between: `${a} and ${b}`, isStock };
  return { of: a ?? b ?? null, between: null, isStock };
}

/** Letters of one lettering that what stays is too thin between can be spaced. */
function spacingFor(stretch: Stretch, part: PreparedPart, least: number): Mend | null {
  const [a, b] = stretch.labels.map((label) => part.sources[label]);
  if (!a || !b || a === b || a.memberId !== b.memberId || !a.takesAway || a.shape !== 'letter' || a.line !== b.line)
    return null;
  return { kind: 'space', memberId: a.memberId, byMm: least - stretch.width };
}

function strengthFindings(part: Part, prepared: PreparedPart, strength: Strength, job: Job): Draft[] {
  const length = (mm: number) => formatLength(mm, job.units);
  const names = new Names(prepared);
  const least = job.sheet.leastWidth ?? 0;
  const kerf = job.sheet.kerf ?? 0;
  const stock = [job.sheet.material, job.sheet.thickness ? length(job.sheet.thickness) : ''].filter(Boolean).join(' ');
  const named = (
    stretches: readonly Stretch[],
    code: 'thin' | 'tight',
    say: (place: ReturnType<typeof placeName>, width: string) => string,
    rest: (count: number) => string,
  ): Draft[] => {
    const drafts = stretches.slice(0, LIMITS.thinNamed).map((s) => {
      const place = placeName(s, prepared, names);
      const mend = code === 'thin' ? spacingFor(s, prepared, least) : null;
      const at = { partId: part.id, box: s.box, detail: place.between ?? place.of ?? part.id, mend };
      return draft(code, 'caution', 'hold', say(place, length(s.width)), at);
    });
    const more = stretches.slice(LIMITS.thinNamed);
    if (more.length === 0) return drafts;
    const box = more.reduce<Box>((all, s) => uniteBoxes(all, s.box), EMPTY_BOX);
    return [
      ...drafts,
      draft(`more-${code}`, 'caution', 'hold', rest(more.length), { partId: part.id, box, detail: part.id }),
    ];
  };
  return [
    ...named(
      strength.thin,
      'thin',
      ({ of, between, isStock }, width) =>
        `${between ? `Between ${between} it` : of ? `${isStock ? 'The stock in' : 'Stroke of'} ${of}` : 'What stays'} is ${width} wide here; ${length(least)} is the least${stock ? ` for ${stock}` : ''}.`,
      (count) => `${count} more places of ${partTitle(part)} are thinner than ${length(least)}.`,
    ),
    ...named(
      strength.tight,
      'tight',
      ({ of, between }, width) =>
        `The gap ${between ? `between ${between}` : of ? `in ${of}` : 'here'} is ${width} wide; the kerf is ${length(kerf)}.`,
      (count) => `${count} more gaps of ${partTitle(part)} are narrower than the kerf.`,
    ),
  ];
}

/** What the steps could not do as asked. */
function stepFindings(part: Part, prepared: PreparedPart, job: Job): Draft[] {
  const names = new Names(prepared);
  const out: Draft[] = prepared.notes.heldOpen.map(({ hole, widthMm }) => {
    const label = hole.labels.find((l) => l >= 0);
    const name = label === undefined ? `a hole in ${partTitle(part)}` : `the hole of ${names.source(label)}`;
    return draft(
      'hole-held',
      'note',
      'hold',
      `${startSentence(name)} is kept ${formatLength(widthMm, job.units)} open; it grows together less there.`,
      { partId: part.id, box: hole.box, detail: name },
    );
  });
  if (prepared.handMade)
    out.push(
      draft(
        'hand-made',
        prepared.handMade.stale ? 'caution' : 'note',
        'close',
        prepared.handMade.stale
          ? `${partTitle(part)} was worked on by hand, and its words or steps have changed since: the outlines are the old ones.`
          : `${partTitle(part)} is worked on by hand: changes of its words or steps don’t show.`,
        { partId: part.id, detail: part.id, box: prepared.box, mend: { kind: 'unhand' } },
      ),
    );
  const { tooManyToTie } = prepared.notes;
  if (tooManyToTie > 0)
    out.push(
      draft(
        'too-many-to-tie',
        'caution',
        'hold',
        `${partTitle(part)} is in ${tooManyToTie} pieces; up to ${LIMITS.piecesTied} are tied together.`,
        { partId: part.id, detail: part.id, box: prepared.box },
      ),
    );
  return out;
}

function workFindings(part: Part, prepared: PreparedPart, operations: ReadonlyMap<string, Operation>): Draft[] {
  if (isEmptyBox(prepared.box)) return [];
  const at = { partId: part.id, detail: part.id, box: prepared.box };
  if (part.work.length === 0)
    return [
      draft(
        'no-operation',
        'caution',
        'assign',
        `${partTitle(part)} has no operation yet: it would not be in the file.`,
        at,
      ),
    ];
  const out: Draft[] = [];
  const kinds = (...whats: readonly Work['what'][]) =>
    part.work.filter((w) => whats.includes(w.what)).map((w) => operations.get(w.operation));
  const filled = kinds('fill', 'hatch').find((o) => o?.on);
  const cut = kinds('outline').find((o) => o?.on && o.kind === 'cut');
  if (filled && cut)
    out.push(
      draft(
        'fill-and-cut',
        'caution',
        'assign',
        `${partTitle(part)} has both a fill (${filled.name}) and a cut (${cut.name}) on the same letters.`,
        at,
      ),
    );
  if (part.work.every((w) => operations.get(w.operation)?.on === false))
    out.push(
      draft('operation-off', 'note', 'assign', `${partTitle(part)} is given to operations that are switched off.`, at),
    );
  return out;
}

/** Words that are joined to something they lie in wholly: nothing of their outlines is left. */
function swallowedFindings(part: Part, prepared: PreparedPart): Draft[] {
  if (part.members.length < 2 || prepared.overlaps || prepared.handMade) return [];
  const left = new Set(prepared.bare.flatMap((o) => o.labels.map((label) => prepared.sources[label]?.memberId)));
  return part.members.flatMap((member, i) => {
    const ready = prepared.members[i];
    if (member.kind !== 'lettering' || member.role !== 'join' || !ready?.outlines.length || left.has(member.id))
      return [];
    return [
      draft(
        'swallowed',
        'fault',
        'compose',
        `“${member.text.trim().split('\n')[0]?.slice(0, 40)}” lies in the rest of its part and is joined to it: it would not be seen.`,
        {
          partId: part.id,
          memberId: member.id,
          box: ready.box,
          detail: member.id,
          mend: { kind: 'punch', memberId: member.id },
        },
      ),
    ];
  });
}

function fillingFindings(part: Part, ready: PreparedPart, { fill }: Linework, unit: LengthUnit): Draft[] {
  const step = part.steps.find((s) => s.kind === 'hatch');
  return fill && step?.kind === 'hatch' ? fillFindings(part, ready, fill, step, unit) : [];
}

const RUNS_BEFORE_CUT = new Set(['engrave', 'mark', 'score']);

function orderFindings(job: Job): Draft[] {
  const used = new Set(job.parts.filter((p) => !p.hidden).flatMap((p) => p.work.map((w) => w.operation)));
  const running = job.operations.filter((o) => o.on && used.has(o.id));
  return running.flatMap((operation, i) => {
    const earlier = running.slice(0, i).find((o) => o.kind === 'cut');
    if (!earlier || !RUNS_BEFORE_CUT.has(operation.kind)) return [];
    return [
      draft(
        'cut-first',
        'caution',
        'assign',
        `${earlier.name} runs before ${operation.name}: pieces may shift or fall before they are finished.`,
        { detail: `${earlier.id}:${operation.id}` },
      ),
    ];
  });
}

/** What findings are about: a part made ready, its strength, and what is drawn of it. */
export type Inspected = PreparedPart & { readonly strength: Strength; readonly linework: Linework };

/** All findings of a job, in the order of its parts. `inspected` holds an entry for every part that is not hidden. */
export function inspect(job: Job, inspected: ReadonlyMap<string, Inspected>): Finding[] {
  const operations = new Map(job.operations.map((o) => [o.id, o]));
  const reasons = new Map(job.leftAsIs.map((l) => [l.finding, l.reason]));
  const drafts = job.parts.flatMap((part) => {
    const ready = inspected.get(part.id);
    if (!ready) return [];
    return [
      ...part.members.flatMap((member, i) => memberFindings(part, member, ready.members[i] as PreparedMember)),
      ...swallowedFindings(part, ready),
      ...placeFindings(part, ready, job, job.units),
      ...stepFindings(part, ready, job),
      ...bridgeFindings(part, ready, job),
      ...(isCut(part, operations)
        ? [
            ...closingFindings(part, ready, job.units),
            ...(sticks(part) ? [] : holdFindings(part, ready, job)),
            ...strengthFindings(part, ready, ready.strength, job),
          ]
        : []),
      ...lineFindings(part, ready, ready.linework, operations, job.units),
      ...fillingFindings(part, ready, ready.linework, job.units),
      ...workFindings(part, ready, operations),
    ];
  });
  const seen = new Map<string, number>();
  return [...drafts, ...filledOver(job, inspected), ...orderFindings(job)].map(({ finding, detail }) => {
    const base = `${finding.code}:${finding.partId ?? ''}:${detail}`.slice(0, 280);
    const times = (seen.get(base) ?? 0) + 1;
    seen.set(base, times);
    const key = times === 1 ? base : `${base}#${times}`;
    return { ...finding, key, left: reasons.get(key) ?? null };
  });
}
