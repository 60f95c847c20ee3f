/** Scripts told by their characters (Unicode Annex 24). */

/** Scripts told apart; anything else runs together with its neighbours, which HarfBuzz then judges. */
const SCRIPTS = [
  'Latin',
  'Greek',
  'Cyrillic',
  'Armenian',
  'Hebrew',
  'Arabic',
  'Devanagari',
  'Bengali',
  'Tamil',
  'Thai',
  'Georgian',
  'Hangul',
  'Hiragana',
  'Katakana',
  'Han',
].map((name) => [name, new RegExp(`\\p{Script=${name}}`, 'u')] as const);

/** The script of a character; null for signs of all or of none that is told apart. */
export const scriptOf = (char: string): string | null => SCRIPTS.find(([, script]) => script.test(char))?.[0] ?? null;

/** A script is there where a face has so many of its letters. */
const ENOUGH = 20;

/** The scripts that characters are enough for, by their code points. */
export function scriptsIn(codes: Iterable<number>): string[] {
  const counts = new Map<string, number>();
  for (const code of codes) {
    const script = scriptOf(String.fromCodePoint(code));
    if (script) counts.set(script, (counts.get(script) ?? 0) + 1);
  }
  return SCRIPTS.map(([name]) => name).filter((name) => (counts.get(name) ?? 0) >= ENOUGH);
}
