/** OpenType features that a user may switch: their names as the face gives them, else those of the registry of features. */
import type { Face } from 'harfbuzzjs';
import { LIMITS } from '../limits';
import type { FaceAbout } from '../schema/face-about';
import { nameInFace } from './harfbuzz';

/** What the registry of OpenType calls the features that are switched by hand; others are the shaper's own or are made by script. */
const NAMES: ReadonlyMap<string, string> = new Map([
  ['afrc', 'Alternative fractions'],
  ['c2sc', 'Small capitals from capitals'],
  ['calt', 'Contextual alternates'],
  ['case', 'Forms for capitals'],
  ['cpsp', 'Capital spacing'],
  ['cswh', 'Contextual swashes'],
  ['dlig', 'Discretionary ligatures'],
  ['dnom', 'Denominators'],
  ['falt', 'Forms at line ends'],
  ['frac', 'Fractions'],
  ['hist', 'Historical forms'],
  ['hlig', 'Historical ligatures'],
  ['kern', 'Kerning'],
  ['liga', 'Ligatures'],
  ['lnum', 'Lining figures'],
  ['numr', 'Numerators'],
  ['onum', 'Old-style figures'],
  ['ordn', 'Ordinals'],
  ['ornm', 'Ornaments'],
  ['pcap', 'Petite capitals'],
  ['pnum', 'Proportional figures'],
  ['salt', 'Stylistic alternates'],
  ['sinf', 'Scientific inferiors'],
  ['smcp', 'Small capitals'],
  ['subs', 'Subscript'],
  ['sups', 'Superscript'],
  ['swsh', 'Swashes'],
  ['titl', 'Titling forms'],
  ['tnum', 'Figures of one width'],
  ['unic', 'Unicase'],
  ['zero', 'Slashed zero'],
]);

/** Features that are on where nothing is said. */
export const ON_BY_ITSELF: ReadonlySet<string> = new Set(['calt', 'kern', 'liga']);

/** The features of a face that a user may switch. */
export function featuresIn(face: Face): FaceAbout['features'] {
  const out = new Map<string, FaceAbout['features'][number]>();
  for (const table of ['GSUB', 'GPOS'] as const)
    face.getTableFeatureTags(table).forEach((tag, index) => {
      const numbered = /^(ss|cv)(\d\d)$/.exec(tag);
      const usual =
        NAMES.get(tag) ?? (numbered && `${numbered[1] === 'ss' ? 'Set' : 'Variant'} ${Number(numbered[2])}`);
      if (!usual || out.has(tag) || out.size >= LIMITS.facesFeatures) return;
      const ids = face.getFeatureNameIds(table, index);
      const own = ids?.uiLabelNameId === undefined ? '' : nameInFace(face, ids.uiLabelNameId);
      const forms = (ids?.paramUiLabelNameIds ?? []).slice(0, LIMITS.faceForms).map((id) => nameInFace(face, id));
      out.set(tag, { tag, name: own || usual, forms });
    });
  return [...out.values()].sort((a, b) => (a.tag < b.tag ? -1 : 1));
}
