/**
 * The typefaces that ship with Needlefile. The files lie in public/typefaces with their licences: TrueType unmodified,
 * one-line faces as scripts/line-faces.ts makes them.
 */

/** A typeface that ships with the app: its family, weight and file. */
export type ShippedFace = {
  /** Family name; what a job document names. */
  readonly family: string;
  /** File in public/typefaces. */
  readonly file: string;
  /** What a user picks by: how the letters are built. */
  readonly manner:
    | 'script'
    | 'plain'
    | 'narrow'
    | 'slab'
    | 'serif'
    | 'stencil'
    | 'rounded'
    | 'hand'
    | 'fixed width'
    | 'one line'
    | 'lines side by side';
};

/** The typefaces that ship with the app, as they are listed. */
export const SHIPPED_FACES: readonly ShippedFace[] = [
  { family: 'Archivo Black', file: 'archivo-black.ttf', manner: 'plain' },
  { family: 'Poppins', file: 'poppins.ttf', manner: 'plain' },
  { family: 'Bebas Neue', file: 'bebas-neue.ttf', manner: 'narrow' },
  { family: 'Alfa Slab One', file: 'alfa-slab-one.ttf', manner: 'slab' },
  { family: 'Libre Baskerville', file: 'libre-baskerville.ttf', manner: 'serif' },
  { family: 'Saira Stencil One', file: 'saira-stencil-one.ttf', manner: 'stencil' },
  { family: 'Fredoka', file: 'fredoka.ttf', manner: 'rounded' },
  { family: 'Pacifico', file: 'pacifico.ttf', manner: 'script' },
  { family: 'Dancing Script', file: 'dancing-script.ttf', manner: 'script' },
  { family: 'Sacramento', file: 'sacramento.ttf', manner: 'script' },
  { family: 'Caveat', file: 'caveat.ttf', manner: 'hand' },
  { family: 'JetBrains Mono', file: 'jetbrains-mono.ttf', manner: 'fixed width' },
  { family: 'Hershey Sans', file: 'hershey-sans.json', manner: 'one line' },
  { family: 'Hershey Script', file: 'hershey-script.json', manner: 'one line' },
  { family: 'Hershey Sans Medium', file: 'hershey-sans-medium.json', manner: 'lines side by side' },
  { family: 'Hershey Script Medium', file: 'hershey-script-medium.json', manner: 'lines side by side' },
  { family: 'Hershey Serif', file: 'hershey-serif.json', manner: 'lines side by side' },
  { family: 'Hershey Serif Italic', file: 'hershey-serif-italic.json', manner: 'lines side by side' },
  { family: 'Hershey Serif Bold', file: 'hershey-serif-bold.json', manner: 'lines side by side' },
  { family: 'Hershey Serif Bold Italic', file: 'hershey-serif-bold-italic.json', manner: 'lines side by side' },
  { family: 'Hershey Gothic', file: 'hershey-gothic.json', manner: 'lines side by side' },
  { family: 'EMS Readability', file: 'ems-readability.json', manner: 'one line' },
  { family: 'EMS Readability Italic', file: 'ems-readability-italic.json', manner: 'one line' },
  { family: 'EMS Nixish', file: 'ems-nixish.json', manner: 'one line' },
  { family: 'EMS Nixish Italic', file: 'ems-nixish-italic.json', manner: 'one line' },
  { family: 'EMS Tech', file: 'ems-tech.json', manner: 'one line' },
  { family: 'EMS Osmotron', file: 'ems-osmotron.json', manner: 'one line' },
  { family: 'EMS Elfin', file: 'ems-elfin.json', manner: 'one line' },
  { family: 'EMS Felix', file: 'ems-felix.json', manner: 'one line' },
  { family: 'EMS Allure', file: 'ems-allure.json', manner: 'one line' },
];

/** Whether a face is lines for a tool to run along, not outlines. */
export const isLineFace = ({ manner }: Pick<ShippedFace, 'manner'>): boolean =>
  manner === 'one line' || manner === 'lines side by side';

/** The family new lettering is set in. */
export const DEFAULT_FACE = 'Archivo Black';

/** The family that new lettering for a tool to run along is set in. */
export const DEFAULT_LINE_FACE = 'EMS Readability';
