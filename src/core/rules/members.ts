/** What is found about the members of a part: words without letters, drawings and parts that are not there. */
import { boxWidth } from '../geometry/point';
import type { Rule } from '../inspect/rule';
import type { Lacking } from '../lettering/layout';
import { OVER_WIDTH_MM } from '../lettering/within';
import { LIMITS } from '../limits';
import type { MemberTrouble, TroubleOf } from '../prepare/prepared';
import type { Lettering } from '../schema/lettering';
import { type AnyMend, ofMembers, type PartSubject, partRule } from './rule';

/** A rule about members with one kind of trouble. */
const troubled = <K extends MemberTrouble['kind']>(
  code: string,
  severity: 'fault' | 'caution',
  kind: K,
  sentence: (trouble: TroubleOf<K>, title: string, name: string) => string,
): Rule<PartSubject, AnyMend> =>
  partRule({
    code,
    severity,
    station: 'compose',
    find: (about) =>
      ofMembers(about, (member, { trouble }) =>
        trouble?.kind === kind
          ? {
              sentence: sentence(
                trouble as TroubleOf<K>,
                about.title,
                (member.kind === 'artwork' || member.kind === 'trace') && member.name ? `“${member.name}” ` : '',
              ),
            }
          : null,
      ),
  });

/** A length that is far beyond any sheet. */
const metres = (mm: number): string => `${(mm / 1000).toLocaleString('en', { maximumSignificantDigits: 3 })} m`;

const count = (n: number): string => n.toLocaleString('en');

/** A sentence for each typeface that lacks something, by the name it has in the words. */
function byFace(
  member: Lettering,
  all: readonly Lacking[],
  sentence: (family: string, letters: readonly string[]) => string,
): string {
  const letters = new Map<string, string[]>();
  for (const { text, line } of all) {
    const { face } = member.lines.find((own) => own.line === line)?.face ?? member;
    letters.set(face, [...(letters.get(face) ?? []), text]);
  }
  return [...letters].map(([family, lacked]) => sentence(family, lacked)).join(' ');
}

const NO_LINE: Readonly<Record<TroubleOf<'no line'>['why'], (title: string) => string>> = {
  gone: (title) => `The part whose outline the words of ${title} run along is no longer there.`,
  loop: (title) => `The words of ${title} run along an outline that is made from them.`,
  'nothing drawn': (title) => `No line is drawn yet for the words of ${title} to run along.`,
  'no outline': (title) => `The part whose outline the words of ${title} run along has no such outline now.`,
};

const NO_PANEL: Readonly<Record<TroubleOf<'no panel'>['why'], (title: string) => string>> = {
  gone: (title) => `The part whose panel the words of ${title} fill is no longer there.`,
  loop: (title) => `The words of ${title} fill a panel that is made from them.`,
  'no outline': (title) => `The part whose panel the words of ${title} fill has no such panel now.`,
};

/** Words longer than their line by less than this are as long, in mm. */
const OVERRUN_MM = 0.01;

const MOST_NAMED = 12;

function lacks(family: string, letters: readonly string[]): string {
  const shown = letters.slice(0, MOST_NAMED).map((c) => (c.trim() === '' ? `U+${c.codePointAt(0)?.toString(16)}` : c));
  const more = letters.length - shown.length;
  const verb = letters.length > 1 ? 'they are' : 'it is';
  return `${family} has no ${shown.join(' ')}${more > 0 ? ` and ${more} more` : ''}; ${verb} left out.`;
}

const isBroken = (family: string, letters: readonly string[]): string =>
  `${letters.slice(0, MOST_NAMED).join(' ')} ${letters.length > 1 ? 'are' : 'is'} broken in the file of ${family} and can’t be drawn; the rest of the words is set.`;

/** What is found about members that could not be made ready. */
export const MEMBER_RULES: readonly Rule<PartSubject, AnyMend>[] = [
  troubled('no-words', 'caution', 'no words', (_, title) => `${title} has lettering without words.`),
  troubled(
    'too-many-characters',
    'fault',
    'too many characters',
    (t) =>
      `This lettering has ${count(t.count)} characters; up to ${count(LIMITS.letteringCharacters)} are prepared at once. The words are kept; share them out over several letterings.`,
  ),
  troubled(
    'no-typeface',
    'fault',
    'no typeface',
    ({ named: { face }, sentence }) => `The typeface ${face} can’t be used: ${sentence} The words are kept.`,
  ),
  partRule({
    code: 'words-as-they-came',
    severity: 'caution',
    station: 'compose',
    find: (about) =>
      ofMembers(about, (_, { lacks }) =>
        lacks
          ? {
              sentence: `The typeface ${lacks.face} is not here: the words of ${about.title} are as they were where the job comes from. To change them, bring it in or choose another.`,
              detail: lacks.face,
            }
          : null,
      ),
  }),
  troubled('no-line', 'fault', 'no line', ({ why }, title) => `${NO_LINE[why](title)} The words are kept.`),
  troubled('no-panel', 'fault', 'no panel', ({ why }, title) => `${NO_PANEL[why](title)} The words are kept.`),
  troubled(
    'no-room',
    'fault',
    'no room',
    (_, title) => `The margins leave no room for the words of ${title}. The words are kept.`,
  ),
  partRule({
    code: 'wider-than-place',
    severity: 'caution',
    station: 'compose',
    many: (n) => `The words of ${n} letterings are wider than their place.`,
    find: (about) =>
      ofMembers(about, (member, { layout }) => {
        if (member.kind !== 'lettering' || !member.within || member.fit || !layout) return null;
        const over = boxWidth(layout.box) - member.within.width;
        return over > OVER_WIDTH_MM
          ? {
              sentence: `The words of ${about.title} are ${about.length(over)} wider than their place, which is ${about.length(member.within.width)}.`,
              detail: member.id,
            }
          : null;
      }),
  }),
  partRule({
    code: 'longer-than-line',
    severity: 'caution',
    station: 'compose',
    find: (about) =>
      ofMembers(about, (member, { layout }) =>
        layout?.along && layout.along.overrunMm > OVERRUN_MM
          ? {
              sentence: `The words of ${about.title} are ${about.length(layout.along.overrunMm)} longer than the line they run along.`,
              detail: member.id,
            }
          : null,
      ),
  }),
  troubled(
    'no-drawing',
    'fault',
    'no drawing',
    ({ sentence }, _, name) => `The drawing ${name}can’t be used: ${sentence} Its place is kept.`,
  ),
  troubled(
    'no-picture',
    'fault',
    'no picture',
    ({ sentence }, _, name) => `The picture ${name}can’t be used: ${sentence} Its place is kept.`,
  ),
  troubled(
    'nothing-traced',
    'fault',
    'nothing traced',
    (_, __, name) => `Nothing can be told apart in the picture ${name}by the tones that were asked for.`,
  ),
  troubled('no-part', 'fault', 'no part', (_, title) => `The part that ${title} copies is no longer there.`),
  troubled(
    'copies-itself',
    'fault',
    'copies itself',
    (_, title) => `${title} copies itself, straight or by way of others.`,
  ),
  troubled(
    'too-many-segments',
    'fault',
    'too many segments',
    (t, title) =>
      `The copies in ${title} have ${count(t.count)} segments; up to ${count(LIMITS.copiedSegments)} are copied.`,
  ),
  troubled(
    'too-large',
    'fault',
    'too large',
    (t, title) =>
      `Something in ${title} would be ${metres(t.mm)} large; up to ${metres(LIMITS.memberMostMm)} is drawn. Its place is kept.`,
  ),
  troubled(
    'too-small',
    'fault',
    'too small',
    (_, title) =>
      `Something in ${title} would be smaller than ${LIMITS.memberLeastMm} mm and is not drawn. Its place is kept.`,
  ),
  partRule({
    code: 'words-set-anew',
    severity: 'note',
    station: 'compose',
    find: (about) =>
      ofMembers(about, (member) =>
        member.kind === 'lettering' && member.insteadOf !== null
          ? {
              sentence: `${about.title}: words from a file${member.insteadOf ? ` in ${member.insteadOf}` : ''} are set in ${member.face} here.`,
            }
          : null,
      ),
  }),
  partRule({
    code: 'missing-characters',
    severity: 'fault',
    station: 'compose',
    find: (about) =>
      ofMembers(about, (member, { missing }) => {
        if (missing.length === 0 || member.kind !== 'lettering') return null;
        return {
          sentence: byFace(member, missing, lacks),
          detail: `${member.id}:${missing.map((m) => m.text).join('')}`,
        };
      }),
  }),
  partRule({
    code: 'broken-glyphs',
    severity: 'fault',
    station: 'compose',
    find: (about) =>
      ofMembers(about, (member, { broken }) => {
        if (broken.length === 0 || member.kind !== 'lettering') return null;
        return {
          sentence: byFace(member, broken, isBroken),
          detail: `${member.id}:${broken.map((b) => b.text).join('')}`,
        };
      }),
  }),
];
