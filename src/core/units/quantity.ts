/** Typed quantities: reading "12", "12mm", "1/2 in", `2 1/2"` and sums of them; printing millimetres in the user's unit. */
import { LIMITS } from '../limits';

/** The unit lengths are shown and typed in. */
export type LengthUnit = 'mm' | 'in';

/** A number that was typed, or a sentence why it can't be read. */
export type Parsed = { readonly ok: true; readonly value: number } | { readonly ok: false; readonly sentence: string };

const MM_PER: Readonly<Record<string, number>> = {
  mm: 1,
  millimetre: 1,
  millimetres: 1,
  millimeter: 1,
  millimeters: 1,
  cm: 10,
  m: 1000,
  in: 25.4,
  inch: 25.4,
  inches: 25.4,
  '"': 25.4,
  '″': 25.4,
  '”': 25.4,
  "''": 25.4,
  ft: 304.8,
  "'": 304.8,
  '′': 304.8,
  '’': 304.8,
  thou: 0.0254,
  mil: 0.0254,
  pt: 25.4 / 72,
  um: 0.001,
  µm: 0.001,
};

/** Every unit that is understood, as it is said where one is not. */
const UNIT_WORDS = 'mm, cm, m, µm, in or ", ft or \', thou or mil, or pt';

/** A number on its way through the sum: `power` 1 is a length in mm, 0 a bare number. */
type Term = { readonly value: number; readonly power: 0 | 1 };

class Unreadable extends Error {}

const VULGAR: Readonly<Record<string, string>> = {
  '½': '1/2',
  '¼': '1/4',
  '¾': '3/4',
  '⅛': '1/8',
  '⅜': '3/8',
  '⅝': '5/8',
  '⅞': '7/8',
  '⅓': '1/3',
  '⅔': '2/3',
};

function normalise(text: string): string {
  return text
    .replace(/[½¼¾⅛⅜⅝⅞⅓⅔]/g, (c) => ` ${VULGAR[c]}`)
    .replace(/[×·]/g, '*')
    .replace(/÷/g, '/')
    .replace(/[−–]/g, '-')
    .replace(/(\d),(\d)/g, '$1.$2')
    .trim();
}

class Reader {
  private at = 0;
  constructor(
    private readonly text: string,
    private readonly bareMm: number,
  ) {}

  /** The whole text as a length in mm, or as a bare number where `bareMm` is NaN. */
  read(): Term {
    const term = this.sum();
    this.space();
    if (this.at < this.text.length) throw new Unreadable(`“${this.text.slice(this.at)}” is not a number or a unit.`);
    return term;
  }

  private space() {
    while (this.text[this.at] === ' ') this.at++;
  }

  private take(pattern: RegExp): string | null {
    this.space();
    const sticky = new RegExp(pattern.source, 'y');
    sticky.lastIndex = this.at;
    const found = sticky.exec(this.text);
    if (!found) return null;
    this.at = sticky.lastIndex;
    return found[0];
  }

  private sum(): Term {
    let value = this.product();
    for (let sign = this.take(/[+-]/); sign; sign = this.take(/[+-]/)) {
      let right = this.product();
      if (value.power !== right.power) {
        value = this.asLength(value);
        right = this.asLength(right);
      }
      value = { value: sign === '+' ? value.value + right.value : value.value - right.value, power: value.power };
    }
    return value;
  }

  private product(): Term {
    let value = this.sign();
    for (let op = this.take(/[*/x]/); op; op = this.take(/[*/x]/)) {
      const right = this.sign();
      if (op === '/') {
        if (right.power === 1) throw new Unreadable('A length can be divided by a number, not by a length.');
        if (right.value === 0) throw new Unreadable('That divides by nothing.');
        value = { value: value.value / right.value, power: value.power };
      } else {
        if (value.power + right.power > 1) throw new Unreadable('Two lengths can’t be multiplied.');
        value = { value: value.value * right.value, power: value.power === 1 || right.power === 1 ? 1 : 0 };
      }
    }
    return value;
  }

  private sign(): Term {
    const sign = this.take(/[+-]/);
    if (!sign) return this.atom();
    const term = this.sign();
    return { value: sign === '-' ? -term.value : term.value, power: term.power };
  }

  private atom(): Term {
    if (this.take(/\(/)) {
      const inner = this.sum();
      if (!this.take(/\)/)) throw new Unreadable('A bracket is not closed.');
      return this.unit(inner);
    }
    const fraction = this.take(/(?:\d+ +)?\d+ *\/ *\d+(?![\d.])/);
    if (fraction) {
      const mixed = /^(?:(\d+) +)?(\d+) *\/ *(\d+)$/.exec(fraction) as RegExpExecArray;
      if (Number(mixed[3]) === 0) throw new Unreadable('That divides by nothing.');
      const value = Number(mixed[1] ?? 0) + Number(mixed[2]) / Number(mixed[3]);
      return this.feetAndInches(this.unit({ value, power: 0 }));
    }
    const number = this.take(/\d+(?:\.\d*)?|\.\d+/);
    if (!number) {
      throw new Unreadable(
        this.at < this.text.length
          ? `“${this.text.slice(this.at)}” is not a number.`
          : 'A number is missing at the end.',
      );
    }
    return this.feetAndInches(this.unit({ value: Number(number), power: 0 }));
  }

  private unit(term: Term): Term {
    const word = this.take(/''|["'″′”’]|[a-zA-Zµ]+/);
    if (word === null) return term;
    if (word === 'x') {
      this.at -= 1;
      return term;
    }
    const mm = MM_PER[word.toLowerCase()];
    if (mm === undefined) throw new Unreadable(`“${word}” is not a unit. Use ${UNIT_WORDS}.`);
    if (term.power === 1) throw new Unreadable('A unit is given twice.');
    return { value: term.value * mm, power: 1 };
  }

  /** `5' 3 1/2"`: a length directly followed by another is their sum. */
  private feetAndInches(term: Term): Term {
    if (term.power !== 1) return term;
    const start = this.at;
    this.space();
    if (!/[\d.]/.test(this.text[this.at] ?? '')) {
      this.at = start;
      return term;
    }
    const more = this.atom();
    if (more.power !== 1) throw new Unreadable('The second number needs a unit too.');
    return { value: term.value + more.value, power: 1 };
  }

  private asLength(term: Term): Term {
    return term.power === 1 ? term : { value: term.value * this.bareMm, power: 1 };
  }
}

function parse(text: string, bareMm: number): Parsed {
  if (text.length > LIMITS.quantityCharacters) return { ok: false, sentence: 'That is too long for a number.' };
  const clean = normalise(text);
  if (clean === '') return { ok: false, sentence: 'Type a number.' };
  try {
    const term = new Reader(clean, bareMm).read();
    const value = term.power === 1 ? term.value : term.value * bareMm;
    if (!Number.isFinite(value)) return { ok: false, sentence: 'That number is too large.' };
    return { ok: true, value };
  } catch (reason) {
    if (reason instanceof Unreadable) return { ok: false, sentence: reason.message };
    throw reason;
  }
}

/** A length as typed → millimetres. Bare numbers are in `unit`. Arithmetic (+ − × ÷, brackets) is allowed. */
export function parseLength(text: string, unit: LengthUnit): Parsed {
  return parse(text, MM_PER[unit] as number);
}

/** "1/8" or "1 1/2" where a length was typed as a fraction of an inch, the unit said or meant; null where it was not. */
export function inchFraction(text: string, unit: LengthUnit): string | null {
  const found = /^(\d+ +)?(\d+) *\/ *(\d+) *(in|inch|inches|"|″|”|'')?$/i.exec(normalise(text));
  if (!found || (found[4] === undefined && unit !== 'in')) return null;
  return `${found[1] ? `${found[1].trim()} ` : ''}${found[2]}/${found[3]}`;
}

/** A bare number as typed (arithmetic allowed); a trailing `suffix` such as "%" or "°" is ignored. Units are refused. */
export function parseNumber(text: string, suffix = ''): Parsed {
  const bare = suffix && text.trim().endsWith(suffix) ? text.trim().slice(0, -suffix.length) : text;
  const parsed = parse(bare, 1);
  if (parsed.ok && /[a-zµ"'″′]/i.test(normalise(bare).replace(/x/g, '')))
    return { ok: false, sentence: 'This is a plain number, without a unit.' };
  return parsed;
}

/** Places after the point for a length shown in `unit`: 0.01 mm, 0.001 in. */
const LENGTH_DIGITS: Readonly<Record<LengthUnit, number>> = { mm: 2, in: 3 };

/** Millimetres as a number in `unit`, trailing zeros dropped: 12.7 → "12.7" or "0.5". */
export function formatLengthNumber(mm: number, unit: LengthUnit, digits = LENGTH_DIGITS[unit]): string {
  const text = (mm / (MM_PER[unit] as number)).toFixed(digits);
  const short = text.includes('.') ? text.replace(/\.?0+$/, '') : text;
  return short === '-0' ? '0' : short;
}

/** Millimetres with the unit: "12.7 mm", "0.5 in". */
export function formatLength(mm: number, unit: LengthUnit, digits?: number): string {
  return `${formatLengthNumber(mm, unit, digits)} ${unit}`;
}
