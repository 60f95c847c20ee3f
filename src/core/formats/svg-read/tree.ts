/**
 * SVG text as a tree of elements, within limits: nothing is expanded that could grow, nothing outside is fetched, and of a
 * damaged file what came before the damage is kept.
 */
import { SaxesParser } from 'saxes';
import { LIMITS } from '../../limits';
import type { ReadProgress } from '../read-drawing';

const SVG_NAMESPACE = 'http://www.w3.org/2000/svg';
const LINK_NAMESPACE = 'http://www.w3.org/1999/xlink';
const XML_NAMESPACE = 'http://www.w3.org/XML/1998/namespace';

/** A line of words, or an element within them. */
export type Content = string | SvgElement;

/** An element of an SVG file: name, attributes, children, text. */
export type SvgElement = {
  readonly name: string;
  readonly attributes: Attributes;
  readonly parent: SvgElement | null;
  readonly children: readonly SvgElement[];
  /** Words and elements in order, kept only where words matter. */
  readonly content: readonly Content[];
};

/** The attributes of an element in their order: few, so that a list takes less room than a map, and is looked through as fast. */
export class Attributes {
  private readonly names: string[] = [];
  private readonly values: string[] = [];

  get(name: string): string | undefined {
    const i = this.names.indexOf(name);
    return i < 0 ? undefined : this.values[i];
  }

  has(name: string): boolean {
    return this.names.includes(name);
  }

  set(name: string, value: string): void {
    const i = this.names.indexOf(name);
    if (i >= 0) this.values[i] = value;
    else {
      this.names.push(name);
      this.values.push(value);
    }
  }

  each(tell: (name: string, value: string) => void): void {
    for (let i = 0; i < this.names.length; i++) tell(this.names[i] as string, this.values[i] as string);
  }
}

/** An element while its children come; lists of nothing are one. */
type Growing = Omit<SvgElement, 'children' | 'content'> & { children: SvgElement[]; content: Content[] };
const NO_CHILDREN: SvgElement[] = [];
const NO_CONTENT: Content[] = [];

const addChild = (parent: Growing, child: SvgElement): void => {
  if (parent.children === NO_CHILDREN) parent.children = [];
  parent.children.push(child);
};

const addContent = (element: Growing, part: Content): void => {
  if (element.content === NO_CONTENT) element.content = [];
  element.content.push(part);
};

/** A file as a tree, its style sheets, and what was wrong with its markup. */
export type SvgTree = {
  readonly root: SvgElement | null;
  /** Sentences about damage. */
  readonly notes: readonly string[];
  /** Elements that lie too deep to be read. */
  readonly tooDeep: number;
};

const HOLDS_WORDS = new Set(['style', 'text', 'tspan', 'title', 'textPath', 'a']);
const CHUNK = 1 << 16;

class TooMany extends Error {}

/** The tree of a file; markup that is broken is read as far as it goes. */
export function readTree(source: string, progress: ReadProgress): SvgTree {
  const parser = new SaxesParser({ xmlns: true, position: true });
  const stack: Growing[] = [];
  let root: SvgElement | null = null;
  let elements = 0;
  let depth = 0;
  let tooDeep = 0;
  let words = 0;
  const faults: string[] = [];
  const notes: string[] = [];

  parser.on('error', (error) => {
    if (faults.push(error.message) > LIMITS.markupFaults) throw new TooMany();
  });
  parser.on('doctype', (doctype) => readEntities(doctype, parser.ENTITIES as Record<string, string>));
  parser.on('opentag', (tag) => {
    depth++;
    if (++elements > LIMITS.drawnElements) {
      notes.push(
        `The file has more than ${LIMITS.drawnElements.toLocaleString('en')} elements; what comes after them was left out.`,
      );
      throw new TooMany();
    }
    if (depth > LIMITS.markupDepth) {
      notes.push(
        `Elements lie more than ${LIMITS.markupDepth.toLocaleString('en')} levels deep in each other; what comes after them was left out.`,
      );
      throw new TooMany();
    }
    if (depth > LIMITS.drawnDepth) {
      tooDeep++;
      return;
    }
    const attributes = new Attributes();
    for (const name in tag.attributes) {
      const { uri, local, value } = tag.attributes[name] as (typeof tag.attributes)[string];
      if (uri === '') attributes.set(local, value);
      else if (uri === LINK_NAMESPACE && local === 'href' && !attributes.has('href')) attributes.set('href', value);
      else if (uri === XML_NAMESPACE) attributes.set(`xml:${local}`, value);
      // Editors keep a group's own name in a label of their namespace.
      else if (local === 'label') attributes.set('label', value);
    }
    // Files without the namespace mean SVG all the same.
    const isSvg = tag.uri === SVG_NAMESPACE || tag.uri === '';
    const parent = stack[stack.length - 1] ?? null;
    const element: Growing = {
      name: isSvg ? tag.local : `${tag.prefix}:${tag.local}`,
      attributes,
      parent,
      children: NO_CHILDREN,
      content: NO_CONTENT,
    };
    if (parent) {
      addChild(parent, element);
      if (HOLDS_WORDS.has(parent.name)) addContent(parent, element);
    } else root ??= element;
    stack.push(element);
  });
  parser.on('closetag', () => {
    if (depth-- <= LIMITS.drawnDepth) stack.pop();
  });
  const take = (text: string) => {
    const element = stack[stack.length - 1];
    if (!element || !HOLDS_WORDS.has(element.name)) return;
    words += text.length;
    if (words <= LIMITS.drawnWords) addContent(element, text);
  };
  parser.on('text', take);
  parser.on('cdata', take);

  try {
    for (let at = 0; at < source.length; at += CHUNK) {
      parser.write(source.slice(at, at + CHUNK));
      progress(Math.min(1, at / source.length));
    }
    parser.close();
  } catch (fault) {
    if (!(fault instanceof TooMany)) faults.push((fault as Error).message);
  }
  if (faults.length > 0) {
    const line = /^(\d+):/.exec(faults[0] as string)?.[1];
    const where = line ? ` near line ${line}` : '';
    notes.push(
      `The file is damaged${where}${faults.length > 1 ? ` and in ${faults.length - 1} more places` : ''}; what could be made out was read.`,
    );
  }
  return { root, notes, tooDeep };
}

/** Plain entities of a document type; those that refer to others could grow without end and are left out. */
function readEntities(doctype: string, into: Record<string, string>): void {
  const declaration = /<!ENTITY\s+([\w:.-]+)\s+(?:"([^"]*)"|'([^']*)')\s*>/g;
  let count = 0;
  let size = 0;
  for (let found = declaration.exec(doctype); found; found = declaration.exec(doctype)) {
    const value = found[2] ?? found[3] ?? '';
    size += value.length;
    if (++count > LIMITS.entities || size > LIMITS.entityCharacters) return;
    if (!value.includes('&') && !value.includes('<')) into[found[1] as string] = value;
  }
}

/** The words directly in an element, e.g. of a style sheet or a title. */
export const wordsIn = (element: SvgElement): string =>
  element.content.filter((part): part is string => typeof part === 'string').join('');
