/** The cascade: presentation attributes, style sheets in the file, style attributes. Sheets outside are never fetched. */
import { compile } from 'css-select';
import { LIMITS } from '../../limits';
import { type SvgElement, wordsIn } from './tree';

/** The computed style of an element: property to value. */
export type Style = Readonly<Record<string, string>>;

const INHERITED = new Set(
  (
    'fill fill-rule fill-opacity stroke stroke-width stroke-opacity stroke-linejoin stroke-linecap stroke-miterlimit ' +
    'stroke-dasharray stroke-dashoffset visibility color clip-rule font-size font-family font-weight font-style text-anchor'
  ).split(' '),
);
const OWN = ['display', 'opacity', 'clip-path', 'mask', 'filter', 'overflow', 'transform', 'stop-color'];
const PRESENTATION = new Set([...INHERITED, ...OWN]);

type Declaration = { readonly name: string; readonly value: string; readonly important: boolean };
type Rule = { readonly selector: string; readonly declarations: readonly Declaration[]; readonly weight: number };

/** Comments; one that is not closed goes on to the end. */
const COMMENTS = /\/\*(?:[\s\S]*?\*\/|[\s\S]*$)/g;

/** A text in parts at a separator, but for those within brackets or quotes; a bracket that is not closed holds nothing together. */
function splitOutside(text: string, separator: string): string[] {
  const ends: number[] = [];
  /** Separators since the bracket that is open was opened: they count if it is never closed. */
  let held: number[] = [];
  let depth = 0;
  let quote = '';
  for (let i = 0; i < text.length; i++) {
    const sign = text[i] as string;
    if (quote) quote = sign === quote ? '' : quote;
    else if (sign === '"' || sign === "'") quote = sign;
    else if (sign === '(' || sign === '[') depth++;
    else if ((sign === ')' || sign === ']') && depth > 0) {
      depth--;
      if (depth === 0) held = [];
    }
    if (sign === separator) (depth > 0 || quote ? held : ends).push(i);
  }
  const all = depth > 0 || quote ? [...ends, ...held].sort((a, b) => a - b) : ends;
  return [...all, text.length].map((end, i) => text.slice(i === 0 ? 0 : (all[i - 1] as number) + 1, end));
}

function parseDeclarations(text: string): Declaration[] {
  const out: Declaration[] = [];
  for (const part of splitOutside(text.replace(COMMENTS, ''), ';')) {
    const colon = part.indexOf(':');
    if (colon <= 0) continue;
    const written = part.slice(colon + 1).trim();
    const mark = written.lastIndexOf('!');
    const important = mark >= 0 && /^\s*important$/i.test(written.slice(mark + 1));
    const value = important ? written.slice(0, mark).trim() : written;
    out.push({ name: part.slice(0, colon).trim().toLowerCase(), value, important });
  }
  return out;
}

/** Ids, then classes, attributes and states, then names (Selectors Level 3, 9). */
function specificity(selector: string): number {
  const plain = selector.replace(/\[[^\]]*(?:\]|$)/g, '.x');
  const count = (text: string, what: RegExp) => (text.match(what) ?? []).length;
  const names = plain.replace(/[#.:][\w-]+/g, '');
  return (
    count(plain, /#[\w-]+/g) * 1e6 + count(plain, /\.[\w-]+|:(?!:)[\w-]+/g) * 1e3 + count(names, /[a-zA-Z][\w-]*/g)
  );
}

/** The rules of a sheet; blocks for other media than a screen are left out. */
function parseSheet(text: string): Rule[] {
  const rules: Rule[] = [];
  const css = text
    .replace(/<!--|-->/g, '')
    .replace(COMMENTS, '')
    .replace(/@(?:charset|import|namespace)[^;]*(?:;|$)/g, '');
  const walk = (block: string, depth: number) => {
    for (let at = 0; at < block.length; ) {
      const open = block.indexOf('{', at);
      if (open < 0 || rules.length >= LIMITS.styleRules) return;
      const head = block.slice(at, open).trim();
      let level = 1;
      let end = open + 1;
      for (; end < block.length && level > 0; end++) level += block[end] === '{' ? 1 : block[end] === '}' ? -1 : 0;
      const body = block.slice(open + 1, level === 0 ? end - 1 : end);
      at = end;
      if (/^@media/.test(head)) {
        if (depth < 4 && (!head.includes('print') || /screen|all/.test(head))) walk(body, depth + 1);
      } else if (!head.startsWith('@')) {
        const declarations = parseDeclarations(body);
        for (const selector of splitOutside(head, ','))
          if (rules.length < LIMITS.styleRules)
            rules.push({ selector: selector.trim(), declarations, weight: specificity(selector) });
      }
    }
  };
  walk(css, 0);
  return rules;
}

/** The children of an element; css-select, which changes none, asks for lists that might be. */
const childrenOf = (e: SvgElement): SvgElement[] => e.children as SvgElement[];

/** How css-select walks our elements. */
const adapter = {
  isTag: (_: SvgElement): _ is SvgElement => true,
  getAttributeValue: (e: SvgElement, name: string) => e.attributes.get(name),
  getChildren: childrenOf,
  getName: (e: SvgElement) => e.name,
  getParent: (e: SvgElement) => e.parent,
  getSiblings: (e: SvgElement) => (e.parent ? childrenOf(e.parent) : [e]),
  getText: wordsIn,
  hasAttrib: (e: SvgElement, name: string) => e.attributes.has(name),
  removeSubsets: (list: SvgElement[]) => list,
  existsOne: (test: (e: SvgElement) => boolean, list: SvgElement[]): boolean =>
    list.some((e) => test(e) || adapter.existsOne(test, childrenOf(e))),
  findAll: (test: (e: SvgElement) => boolean, list: SvgElement[]): SvgElement[] =>
    list.flatMap((e) => [...(test(e) ? [e] : []), ...adapter.findAll(test, childrenOf(e))]),
  findOne: (test: (e: SvgElement) => boolean, list: SvgElement[]): SvgElement | null => {
    for (const e of list) {
      const found = test(e) ? e : adapter.findOne(test, childrenOf(e));
      if (found) return found;
    }
    return null;
  },
};

/** The style sheets of a file, applied to its elements in the order CSS says. */
export class Cascade {
  private readonly matched = new Map<SvgElement, Rule[]>();
  private readonly inherited = new WeakMap<Style, Style>();

  /** `all` in document order. `refused` is told of rules that cannot be followed. */
  constructor(all: readonly SvgElement[], refused: () => void) {
    const sheets = all.filter((e) => e.name === 'style' && /^$|css/.test(e.attributes.get('type') ?? ''));
    const rules = parseSheet(sheets.map(wordsIn).join('\n'));
    // A hostile sheet against a large tree would take for ever.
    if (rules.length * all.length > LIMITS.styleTests) {
      refused();
      return;
    }
    for (const rule of rules) {
      // What is this long no program writes; it only takes long.
      if (rule.selector.length > LIMITS.selectorCharacters) {
        refused();
        continue;
      }
      try {
        const test = compile<SvgElement, SvgElement>(rule.selector, { adapter, xmlMode: true });
        for (const element of all) {
          if (!test(element)) continue;
          const list = this.matched.get(element);
          if (list) list.push(rule);
          else this.matched.set(element, [rule]);
        }
      } catch {
        refused();
      }
    }
  }

  /** What an element has of its parent that says nothing itself: the same for all of these. */
  private inheritedOf(style: Style): Style {
    let known = this.inherited.get(style);
    if (!known) {
      known = Object.fromEntries(Object.entries(style).filter(([name]) => INHERITED.has(name)));
      this.inherited.set(style, known);
    }
    return known;
  }

  /** The computed values of an element whose parent has `inherited`. */
  of(element: SvgElement, inherited: Style): Style {
    const rules = this.matched.get(element);
    const own = element.attributes.get('style');
    const style: Record<string, string> = {};
    let isPlain = !rules && !own;
    element.attributes.each((name, value) => {
      if (!PRESENTATION.has(name)) return;
      style[name] = value.trim();
      isPlain = false;
    });
    if (isPlain) return this.inheritedOf(inherited);
    const important: Record<string, string> = {};
    const take = (declarations: readonly Declaration[]) => {
      for (const { name, value, important: wins } of declarations) {
        if (name === 'font') takeFont(value, wins ? important : style);
        else (wins ? important : style)[name] = value;
      }
    };
    if (rules) for (const rule of [...rules].sort((a, b) => a.weight - b.weight)) take(rule.declarations);
    if (own) take(parseDeclarations(own));
    Object.assign(style, important);
    const computed: Record<string, string> = { ...this.inheritedOf(inherited) };
    for (const name in style) {
      const value = style[name] as string;
      if (value !== 'inherit') computed[name] = value;
      else if (inherited[name] !== undefined) computed[name] = inherited[name] as string;
      else delete computed[name];
    }
    return computed;
  }
}

/** The shorthand "bold 12px Family". */
function takeFont(value: string, into: Record<string, string>): void {
  const found =
    value.length <= LIMITS.selectorCharacters &&
    /^(.*?)((?:\d+(?:\.\d+)?|\.\d+)(?:px|pt|mm|cm|in|em|pc|%)?)(?:\/\S+)?\s+(.+)$/.exec(value);
  if (!found) return;
  into['font-size'] = found[2] as string;
  into['font-family'] = found[3] as string;
  for (const word of (found[1] as string).split(/\s+/)) {
    if (/^(bold|bolder|\d{3})$/.test(word)) into['font-weight'] = word;
    if (/^(italic|oblique)$/.test(word)) into['font-style'] = word;
  }
}
