/** Names of layers, as files have them in place of what they are called. */

/** A name without what no file can hold. */
export const cleanName = (name: string): string => name.replace(/[\p{Cc}\p{Cs}\p{Noncharacter_Code_Point}]/gu, '');

/**
 * Whether a name is what a DXF makes of another: accents go, other signs become one of these, the end is cut off, and a number
 * tells it from another of the same name.
 */
export function isShortened(name: string, found: string): boolean {
  const plain = (text: string) => text.normalize('NFKD').replace(/\p{M}/gu, '');
  const wanted = plain(name).trim();
  return [found, found.replace(/[ _]\d+$/, '')].map(plain).some((shown) => {
    if (wanted === '') return shown !== '';
    const agrees = [...shown.split('').keys()].every(
      (i) => shown[i] === wanted[i] || '_-'.includes(shown[i] as string),
    );
    return agrees && shown.length > 0 && (shown.length === wanted.length || shown.length >= SHORTENED);
  });
}

/** Names are cut to no fewer letters than this. */
const SHORTENED = 28;
