/** What the page says of formats that are read, without loading their readers. A test holds it against these. */
export const READ_WORDS: readonly string[] = ['SVG', 'DXF', 'PDF', 'HPGL'];

/**
 * Endings of the files that can be read, for the browser's file dialog; the readers themselves go by what is in a
 * file.
 */
export const READ_ENDINGS: readonly string[] = [
  '.svg',
  '.svgz',
  '.dxf',
  '.pdf',
  '.ai',
  '.plt',
  '.hpgl',
  '.hpg',
  '.hgl',
];

/** "SVG or DXF", "SVG, DXF or …". */
export const READ_FORMATS_SAID = `${READ_WORDS.slice(0, -1).join(', ')} or ${READ_WORDS.at(-1)}`;

/** Endings of pictures, which the browser unpacks, for the same dialog. */
export const PICTURE_ENDINGS: readonly string[] = ['.png', '.jpg', '.jpeg', '.webp', '.gif', '.bmp', '.avif'];
