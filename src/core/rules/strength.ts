/** Places thinner than is safe in the material, and gaps narrower than the kerf. */
import { partOf } from '../commands/changed';
import { spaceLetters } from '../commands/letters';
import { setKerfSide } from '../commands/operations';
import type { Job, Part } from '../document/schema';
import { type Box, EMPTY_BOX, uniteBoxes } from '../geometry/point';
import type { Observation, Rule } from '../inspect/rule';
import type { Stretch } from '../inspect/strength';
import { LIMITS } from '../limits';
import { type AnyMend, type PartSubject, partRule } from './rule';

/** Whether what is found is that something is too thin, which thickening may mend. */
export const isThin = (code: string): boolean => code === 'thin' || code === 'more-thin';

/** Gaps narrower than this are told as none, in mm. */
const TOUCHING_MM = 0.005;

type Space = { readonly memberId: string; readonly byMm: number };

/** What a thin place or a gap lies in: "Stroke of l", "The stock in E", "Between r and n". */
function placeName({ labels }: Stretch, { ready, names }: PartSubject) {
  const isStock = labels.some((label) => ready.sources[label]?.takesAway);
  const [a, b] = [...labels].sort((p, q) => p - q).map((label) => (label < 0 ? null : names.source(label)));
  if (a && b && a !== b) return { of: null, between: `${a} and ${b}`, isStock };
  return { of: a ?? b ?? null, between: null, isStock };
}

/** The stretches that are named one by one, with a sentence each. */
const named = (
  about: PartSubject,
  stretches: readonly Stretch[],
  sentence: (place: ReturnType<typeof placeName>, stretch: Stretch) => string,
): (Observation & { readonly stretch: Stretch })[] =>
  (about.isCut ? stretches : []).slice(0, LIMITS.thinNamed).map((stretch) => {
    const place = placeName(stretch, about);
    return {
      stretch,
      sentence: sentence(place, stretch),
      box: stretch.box,
      detail: place.between ?? place.of ?? about.part.id,
    };
  });

/** The stretches beyond those that are named, counted. */
function counted(
  about: PartSubject,
  stretches: readonly Stretch[],
  sentence: (count: number) => string,
): Observation[] {
  const more = about.isCut ? stretches : [];
  if (more.length === 0) return [];
  const box = more.reduce<Box>((all, s) => uniteBoxes(all, s.box), EMPTY_BOX);
  return [{ sentence: sentence(more.length), box, detail: about.part.id }];
}

/** Letters of one lettering that what stays is too thin between can be spaced. */
function spacingFor(stretch: Stretch, { ready, job }: PartSubject): Space | null {
  const [a, b] = stretch.labels.map((label) => ready.sources[label]);
  if (!a || !b || a === b || a.memberId !== b.memberId || !a.takesAway || a.shape !== 'letter' || a.line !== b.line)
    return null;
  return { memberId: a.memberId, byMm: (job.sheet.leastWidth ?? 0) - stretch.width };
}

/** Operations that cut a part on its outlines, and could run beside them. */
const cutsOnOutlines = ({ operations }: Pick<Job, 'operations'>, { work }: Pick<Part, 'work'>): string[] =>
  operations
    .filter((o) => o.on && o.kind === 'cut' && o.kerfSide === 'line')
    .filter((o) => work.some((w) => w.what === 'outline' && w.operation === o.id))
    .map((o) => o.id);

/** Cuts take less than this without a word, in mm. */
const HARDLY_MM = 0.0005;

/** Whether a place is wide enough as drawn, and too thin only by what the cut takes. */
const isByCut = ({ job }: PartSubject, { width, left }: Stretch): boolean =>
  left < width - HARDLY_MM && width >= (job.sheet.leastWidth ?? 0);

function thinSentence(about: PartSubject, place: ReturnType<typeof placeName>, { width, left }: Stretch): string {
  const { of, between, isStock } = place;
  const where = between
    ? `Between ${between} it`
    : of
      ? `${isStock ? 'The stock in' : 'Stroke of'} ${of}`
      : 'What stays';
  const stock = stockOf(about);
  const least = `${about.length(about.job.sheet.leastWidth ?? 0)} is the least${stock ? ` for ${stock}` : ''}.`;
  const wide = `${where} is ${about.length(width)} wide here`;
  if (left >= width - HARDLY_MM) return `${wide}; ${least}`;
  if (left < HARDLY_MM) return `${wide}, which the cut takes away; ${least}`;
  return `${wide}, ${about.length(left)} of it stays when it is cut; ${least}`;
}

/** "3 mm Birch plywood", as far as it is known. */
const stockOf = ({ job: { sheet }, length }: PartSubject): string =>
  [sheet.material, sheet.thickness ? length(sheet.thickness) : ''].filter(Boolean).join(' ');

/** Thin places beyond those that are named: of those thin as drawn, and of those that the cut makes thin. */
function beyondNamed(about: PartSubject): Stretch[] {
  const { thin } = about.ready.strength;
  return [false, true].flatMap((byCut) => thin.filter((s) => isByCut(about, s) === byCut).slice(LIMITS.thinNamed));
}

/** What is found about stock that is thinner than is safe. */
export const STRENGTH_RULES: readonly Rule<PartSubject, AnyMend>[] = [
  partRule<Space>({
    code: 'thin',
    severity: 'caution',
    station: 'hold',
    many: (count) => `${count} places are thinner than is safe.`,
    mend: {
      words: 'Space the letters',
      apply: (job, partId, { memberId, byMm }, seen) =>
        spaceLetters(job, partId, { memberId, byMm, capHeightMm: seen.capHeightOf(partId, memberId) }),
    },
    find(about) {
      const asDrawn = about.ready.strength.thin.filter((stretch) => !isByCut(about, stretch));
      return named(about, asDrawn, (place, stretch) => thinSentence(about, place, stretch)).map(
        ({ stretch, ...found }) => ({ ...found, mend: spacingFor(stretch, about) }),
      );
    },
  }),
  partRule({
    code: 'thin-by-cut',
    severity: 'caution',
    station: 'hold',
    many: (count) => `${count} places are thinner than is safe when the cut has taken its width.`,
    mend: {
      words: 'Cut beside the outlines',
      apply: (job, partId) =>
        cutsOnOutlines(job, partOf(job, partId) ?? { work: [] }).reduce(
          (done, id) => setKerfSide(done, id, 'beside'),
          job,
        ),
    },
    find(about) {
      const byCut = about.ready.strength.thin.filter((stretch) => isByCut(about, stretch));
      const canRunBeside = cutsOnOutlines(about.job, about.part).length > 0;
      return named(about, byCut, (place, stretch) => thinSentence(about, place, stretch)).map(
        ({ stretch: _, ...found }) => ({ ...found, mend: canRunBeside ? {} : null }),
      );
    },
  }),
  partRule({
    code: 'more-thin',
    severity: 'caution',
    station: 'hold',
    find: (about) =>
      counted(
        about,
        beyondNamed(about),
        (count) =>
          `${count} more places of ${about.title} are thinner than ${about.length(about.job.sheet.leastWidth ?? 0)}.`,
      ),
  }),
  partRule({
    code: 'tight',
    severity: 'caution',
    station: 'hold',
    many: (count) => `${count} gaps are narrower than the kerf.`,
    find(about) {
      const kerf = about.length(about.job.sheet.kerf ?? 0);
      return named(about, about.ready.strength.tight, ({ of, between }, { width: mm }) => {
        const where = between ? `between ${between}` : of ? `in ${of}` : 'here';
        if (mm < TOUCHING_MM)
          return `Edges touch ${where} and nothing is cut between them: weld what is to be one, space what is not.`;
        return `The gap ${where} is ${about.length(mm)} wide; the kerf is ${kerf}.`;
      }).map(({ stretch: _, ...found }) => found);
    },
  }),
  partRule({
    code: 'more-tight',
    severity: 'caution',
    station: 'hold',
    find: (about) =>
      counted(
        about,
        about.ready.strength.tight.slice(LIMITS.thinNamed),
        (count) => `${count} more gaps of ${about.title} are narrower than the kerf.`,
      ),
  }),
];
