/**
 * Typefaces that do not ship, labelled by hand with how their letters are built: those of tests/typefaces, where they are installed
 * (npm run verify does), and one-line faces.
 */
import { existsSync, readdirSync } from 'node:fs';
import path from 'node:path';
import { SHIPPED_FACES } from '../../src/core/lettering/catalogue';
import type { Look } from '../../src/core/schema/face-about';

const FOLDER = path.resolve('tests/typefaces/node_modules');

/** Whether the typefaces are installed. */
const areTypefacesHere = existsSync(FOLDER);

/** A typeface by its name, its file and its label. */
export type Labelled = { readonly name: string; readonly file: string; readonly look: Look };

const STATIC: Readonly<Partial<Record<Look, string>>> = {
  script: 'great-vibes allura alex-brush parisienne cookie kaushan-script lobster yellowtail',
  hand: 'indie-flower patrick-hand shadows-into-light architects-daughter kalam permanent-marker gloria-hallelujah',
  serif:
    'eb-garamond playfair-display merriweather lora crimson-text cinzel cormorant-garamond libre-caslon-text gfs-didot noto-serif-jp',
  slab: 'roboto-slab arvo zilla-slab rokkitt josefin-slab ultra',
  plain: 'open-sans montserrat work-sans lato raleway philosopher noto-sans-hebrew',
  narrow: 'anton pathway-gothic-one fjalla-one oswald',
  rounded: 'varela-round comfortaa quicksand nunito',
  stencil: 'allerta-stencil black-ops-one keania-one',
  'fixed width': 'ibm-plex-mono space-mono courier-prime inconsolata',
};

/** Variable faces: with all their axes, in the Latin part of their package. */
const VARIABLE: readonly (readonly [name: string, axes: string, look: Look])[] = [
  ['fraunces', 'full', 'serif'],
  ['recursive', 'full', 'plain'],
  ['roboto-flex', 'full', 'plain'],
  ['caveat', 'wght', 'hand'],
];

function regularOf(name: string): string {
  const folder = path.join(FOLDER, '@expo-google-fonts', name);
  const file = readdirSync(folder, { recursive: true, encoding: 'utf8' }).find((f) => f.endsWith('_400Regular.ttf'));
  if (!file) throw new Error(`${name} has no regular`);
  return path.join(folder, file);
}

/** Variable faces. */
export const VARIABLE_FACES: readonly Labelled[] = areTypefacesHere
  ? VARIABLE.map(([name, axes, look]) => ({
      name,
      file: path.join(FOLDER, '@fontsource-variable', name, 'files', `${name}-latin-${axes}-normal.woff2`),
      look,
    }))
  : [];

/** Faces of one style. */
export const STATIC_FACES: readonly Labelled[] = areTypefacesHere
  ? Object.entries(STATIC).flatMap(([look, names]) =>
      names.split(' ').map((name) => ({ name, file: regularOf(name), look: look as Look })),
    )
  : [];

const UNSEEN: Readonly<Partial<Record<Look, string>>> = {
  script: 'satisfy tangerine merienda marck-script courgette',
  hand: 'handlee gochi-hand covered-by-your-grace rock-salt bangers',
  serif: 'abril-fatface alegreya cardo vollkorn spectral noticia-text domine fredericka-the-great special-elite',
  slab: 'bree-serif patua-one bitter',
  plain: 'josefin-sans titillium-web cabin karla rubik barlow exo-2 poiret-one fira-sans righteous',
};

/** Faces that nothing was set by: looked at when all was settled. */
export const UNSEEN_FACES: readonly Labelled[] = areTypefacesHere
  ? Object.entries(UNSEEN).flatMap(([look, names]) =>
      names.split(' ').map((name) => ({ name, file: regularOf(name), look: look as Look })),
    )
  : [];

/** Decorated faces: inlines, shadows, letters in outline or of several lines. */
export const DECORATED_FACES: readonly Labelled[] = areTypefacesHere
  ? 'bungee-inline bungee-shade ewert londrina-shadow monoton rye sancreek'
      .split(' ')
      .map((name) => ({ name, file: regularOf(name), look: 'plain' }))
  : [];

/** The shipped faces of outlines. */
export const SHIPPED: readonly Labelled[] = SHIPPED_FACES.filter((f) => f.file.endsWith('.ttf')).map(
  ({ family, file, manner }) => ({ name: family, file: `public/typefaces/${file}`, look: manner }),
);

/** Faces for scripts that are not Latin. */
export const OTHER_SCRIPTS: readonly Labelled[] = areTypefacesHere
  ? ['noto-naskh-arabic', 'noto-sans-devanagari', 'noto-sans-thai'].map((name) => ({
      name,
      file: regularOf(name),
      look: 'plain',
    }))
  : [];

const ONE_LINE = ['HersheySans1', 'HersheyScript1', 'EMSAllure'];

/** One-line faces as SVG fonts. */
export const ONE_LINE_FACES: readonly Labelled[] = ONE_LINE.map((name) => ({
  name,
  file: path.resolve('node_modules/hersheytext/svg_fonts', `${name}.svg`),
  look: 'one line',
}));
