/** The typefaces that ship with Needlefile. The files lie unmodified in public/typefaces with their licences. */

export type ShippedFace = {
  /** Family name; what a job document names. */
  readonly family: string;
  /** File in public/typefaces. */
  readonly file: string;
  /** What a user picks by: how the letters are built. */
  readonly manner: 'script' | 'plain' | 'narrow' | 'slab' | 'serif' | 'stencil' | 'rounded' | 'hand' | 'fixed width';
};

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
];

export const DEFAULT_FACE = 'Archivo Black';
