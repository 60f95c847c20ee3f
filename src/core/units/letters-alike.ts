/** What is easily missed in words: doubled spaces, and letters that look alike in other scripts. */

/** Letters of other scripts that look as Latin ones do (from the Unicode list of confusable characters, those of everyday letters). */
const ALIKE: Readonly<Record<string, string>> = {
  Α: 'A',
  Β: 'B',
  Ε: 'E',
  Ζ: 'Z',
  Η: 'H',
  Ι: 'I',
  Κ: 'K',
  Μ: 'M',
  Ν: 'N',
  Ο: 'O',
  Ρ: 'P',
  Τ: 'T',
  Υ: 'Y',
  Χ: 'X',
  ο: 'o',
  ν: 'v',
  А: 'A',
  В: 'B',
  Е: 'E',
  К: 'K',
  М: 'M',
  Н: 'H',
  О: 'O',
  Р: 'P',
  С: 'C',
  Т: 'T',
  У: 'Y',
  Х: 'X',
  Ѕ: 'S',
  І: 'I',
  Ј: 'J',
  а: 'a',
  е: 'e',
  о: 'o',
  р: 'p',
  с: 'c',
  у: 'y',
  х: 'x',
  ѕ: 's',
  і: 'i',
  ј: 'j',
  һ: 'h',
  ԁ: 'd',
  ԛ: 'q',
  ԝ: 'w',
  Ａ: 'A',
  Ｏ: 'O',
};

const SCRIPTS: readonly (readonly [word: string, test: RegExp])[] = [
  ['Greek', /\p{Script=Greek}/u],
  ['Cyrillic', /\p{Script=Cyrillic}/u],
];

/** What is easily missed in a text, each in a sentence. */
export function missedIn(text: string): string[] {
  const out: string[] = [];
  const doubled = (text.match(/ {2,}/g) ?? []).length;
  if (doubled > 0) out.push(doubled === 1 ? 'There is a doubled space.' : `There are ${doubled} doubled spaces.`);
  if (/^[ \t]|[ \t]$/m.test(text)) out.push('A line begins or ends with a space.');
  const letters = [...text];
  // In words of that script they are at home; beside Latin letters they were typed by mistake.
  if (letters.some((c) => /\p{Script=Latin}/u.test(c)))
    for (const c of new Set(letters.filter((l) => Object.hasOwn(ALIKE, l)))) {
      const script = SCRIPTS.find(([, test]) => test.test(c))?.[0];
      out.push(
        `“${c}” is ${script ? `the ${script} letter` : 'a letter of another width'} that looks like ${ALIKE[c]}.`,
      );
    }
  return out;
}
