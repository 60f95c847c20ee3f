/** Reading SVG into the neutral drawing. Nothing outside the file is fetched, nothing of it is run. */

import { type Path, transformPath } from '../../geometry/path';
import { applyMatrix, compose, IDENTITY, type Matrix, scaling, translation } from '../../geometry/point';
import { LIMITS } from '../../limits';
import { Finder, type ReadFill, type Reading, ReadingStops, type ReadProgress, type SizeClaim } from '../read-drawing';
import { plainRectangle } from './frame';
import { elementBounds, outlineOf, pointOf, type Viewport } from './outlines';
import { Paints, PLAIN } from './paint';
import { MM_PER_PIXEL, sizeOf } from './size';
import { Cascade, type Style } from './style';
import { svgTextLines } from './text';
import { readTree, type SvgElement, wordsIn } from './tree';
import { fitViewBox, lengthAttribute, lengthIn, parseReference, parseTransform, parseViewBox } from './values';

/** Elements that draw nothing where they stand. */
const SILENT = new Set(
  (
    'defs symbol clipPath mask pattern marker linearGradient radialGradient filter style title desc metadata animate set ' +
    'animateTransform animateMotion animateColor font font-face cursor view script namedview'
  ).split(' '),
);
const MARKERS = ['marker-start', 'marker-mid', 'marker-end', 'marker'];

type Place = {
  readonly matrix: Matrix;
  readonly style: Style;
  readonly view: Viewport;
  readonly clips: readonly number[];
  readonly group: string;
  /** What is being entered, so that nothing enters itself. */
  readonly within: ReadonlySet<SvgElement>;
  /** How many elements one is in, those that are used along the way included. */
  readonly depth: number;
  readonly inClip: boolean;
};

/** Reads an SVG file. Never throws for what is in the file; `progress` hears shares from 0 to 1. */
export function readSvg(source: string, progress: ReadProgress = () => {}): Reading {
  const tree = readTree(source, (share) => progress(share * 0.7));
  const { root } = tree;
  if (!root) return { ok: false, sentence: 'There is no drawing in this file: nothing in it could be read.' };
  if (root.name !== 'svg')
    return { ok: false, sentence: `This is no SVG drawing: it begins with “${root.name.slice(0, 60)}”.` };
  const reader = new SvgReader(root, progress);
  for (const note of tree.notes) reader.finder.breaksOff(note);
  if (tree.tooDeep > 0) reader.finder.unread(`elements more than ${LIMITS.drawnDepth} levels deep`, tree.tooDeep);
  try {
    reader.read();
  } catch (stop) {
    if (!(stop instanceof ReadingStops)) throw stop;
    reader.finder.breaksOff(stop.message);
  }
  progress(1);
  return { ok: true, found: reader.finder.found('SVG', reader.claim, reader.page) };
}

class SvgReader {
  readonly finder = new Finder();
  readonly claim: SizeClaim;
  readonly page: { readonly width: number; readonly height: number };
  private readonly ids = new Map<string, SvgElement>();
  private readonly all: SvgElement[] = [];
  private readonly cascade: Cascade;
  private readonly toPage: Matrix;
  private readonly rootView: Viewport;
  private readonly paints: Paints;
  private visited = 0;
  private used = 0;

  constructor(
    private readonly root: SvgElement,
    private readonly progress: ReadProgress,
  ) {
    const toVisit = [root];
    for (let e = toVisit.pop(); e; e = toVisit.pop()) {
      this.all.push(e);
      for (let i = e.children.length - 1; i >= 0; i--) toVisit.push(e.children[i] as SvgElement);
    }
    for (const e of this.all) {
      const id = e.attributes.get('id') ?? e.attributes.get('xml:id');
      if (id !== undefined && !this.ids.has(id)) this.ids.set(id, e);
    }
    this.cascade = new Cascade(this.all, () => this.finder.unread('rules of a style sheet'));
    this.paints = new Paints(this.ids, this.cascade, this.finder);
    const size = sizeOf(root);
    this.claim = size.claim;
    this.page = size.page;
    this.rootView = size.view;
    // From the root's user units, y down, to mm on the page, y up.
    this.toPage = compose(size.matrix, {
      a: MM_PER_PIXEL,
      b: 0,
      c: 0,
      d: -MM_PER_PIXEL,
      e: 0,
      f: size.page.height,
    });
  }

  read(): void {
    const style = this.cascade.of(this.root, {});
    const place: Place = {
      matrix: compose(this.transformOf(style), this.toPage),
      style,
      view: this.rootView,
      clips: [],
      group: '',
      within: new Set([this.root]),
      depth: 1,
      inClip: false,
    };
    this.root.children.forEach((child, i) => {
      this.visit(child, place);
      this.progress(0.7 + (0.3 * i) / this.root.children.length);
    });
  }

  private transformOf(style: Style): Matrix {
    const matrix = parseTransform(style.transform);
    if (!matrix) this.finder.unread('transforms that are written wrongly');
    return matrix ?? IDENTITY;
  }

  /** Whether what is in a place lies too deep: a chain of uses, or of clips, is as deep as it is long. */
  private isTooDeep({ depth }: Place): boolean {
    if (depth < LIMITS.drawnDepth) return false;
    this.finder.unread(`elements more than ${LIMITS.drawnDepth} levels deep`);
    return true;
  }

  private visit(element: SvgElement, parent: Place): void {
    if (SILENT.has(element.name)) return;
    if (element.name.includes(':')) {
      if (element.children.length > 0 && element.parent?.name !== 'metadata')
        this.finder.unread('elements of other languages');
      return;
    }
    if (this.isTooDeep(parent)) return;
    if (++this.visited > LIMITS.drawnElements)
      throw new ReadingStops(
        `The drawing repeats itself more than ${LIMITS.drawnElements.toLocaleString('en')} times; what comes after that was left out.`,
      );
    const style = this.cascade.of(element, parent.style);
    if (style.display === 'none') {
      this.finder.unread('hidden shapes and groups');
      return;
    }
    if (style.mask && style.mask !== 'none') this.finder.unread('masks, read without them');
    if (style.filter && style.filter !== 'none') this.finder.unread('filter effects, read without them');
    let place: Place = {
      ...parent,
      style,
      matrix: style.transform ? compose(this.transformOf(style), parent.matrix) : parent.matrix,
      depth: parent.depth + 1,
    };
    const clips = this.clipsOf(element, place);
    if (clips !== place.clips) place = { ...place, clips };
    switch (element.name) {
      case 'g':
      case 'a': {
        const within = { ...place, group: place.group || this.nameOf(element) };
        for (const child of element.children) this.visit(child, within);
        break;
      }
      case 'switch': {
        const chosen = element.children.find(suits);
        if (chosen) this.visit(chosen, place);
        break;
      }
      case 'svg': {
        const { view } = place;
        const width = lengthAttribute(element, 'width', view.width, view.width);
        const height = lengthAttribute(element, 'height', view.height, view.height);
        const at = translation(lengthAttribute(element, 'x', view.width), lengthAttribute(element, 'y', view.height));
        this.enter(element, { ...place, matrix: compose(at, place.matrix) }, width, height);
        break;
      }
      case 'use':
        this.use(element, place);
        break;
      case 'text':
        this.words(element, place);
        break;
      case 'image':
        this.finder.unread('pictures');
        break;
      case 'foreignObject':
        this.finder.unread('pieces of web pages');
        break;
      default:
        this.draw(element, place);
    }
  }

  /** What a group is called in the file: its title, label or id. */
  private nameOf(group: SvgElement): string {
    const title = group.children.find((child) => child.name === 'title');
    return (title && wordsIn(title).trim()) || group.attributes.get('label') || group.attributes.get('id') || '';
  }

  /** The children of an svg or symbol element in the area it fills. */
  private enter(element: SvgElement, place: Place, width: number, height: number): void {
    if (!(width > 0 && height > 0)) return;
    const given = element.attributes.get('viewBox');
    const box = parseViewBox(given);
    const fit = box ? fitViewBox(box, width, height, element.attributes.get('preserveAspectRatio')) : IDENTITY;
    if (!fit) return;
    let { clips } = place;
    if ((place.style.overflow ?? 'hidden') !== 'visible')
      clips = [...clips, this.clip([plainRectangle(0, 0, width, height)], 'nonzero', place.matrix)];
    const inner: Place = {
      ...place,
      matrix: compose(fit, place.matrix),
      view: box ?? { width, height },
      clips,
      within: new Set(place.within).add(element),
    };
    for (const child of element.children) this.visit(child, inner);
  }

  private use(element: SvgElement, place: Place): void {
    const link = element.attributes.get('href') ?? '';
    const target = link.startsWith('#') ? this.ids.get(link.slice(1)) : undefined;
    if (!target) {
      this.finder.unread(
        link.startsWith('#') || link === '' ? 'uses of shapes that are not there' : 'uses of shapes in other files',
      );
      return;
    }
    if (place.within.has(target)) {
      this.finder.unread('shapes that use themselves');
      return;
    }
    if (++this.used > LIMITS.usedShapes)
      throw new ReadingStops(
        `The drawing uses shapes again more than ${LIMITS.usedShapes.toLocaleString('en')} times; what comes after that was left out.`,
      );
    const { view } = place;
    const at = translation(lengthAttribute(element, 'x', view.width), lengthAttribute(element, 'y', view.height));
    const inner: Place = {
      ...place,
      matrix: compose(at, place.matrix),
      within: new Set(place.within).add(target),
    };
    if (target.name !== 'symbol' && target.name !== 'svg') {
      this.visit(target, inner);
      return;
    }
    const side = (name: 'width' | 'height') =>
      lengthIn(element.attributes.get(name), view[name]) ??
      lengthIn(target.attributes.get(name), view[name]) ??
      view[name];
    const style = this.cascade.of(target, inner.style);
    const own =
      target.name === 'svg'
        ? translation(lengthAttribute(target, 'x', view.width), lengthAttribute(target, 'y', view.height))
        : IDENTITY;
    this.enter(target, { ...inner, style, matrix: compose(own, inner.matrix) }, side('width'), side('height'));
  }

  private clip(paths: readonly Path[], rule: ReadFill['rule'], matrix: Matrix): number {
    const shape = { paths: this.finder.sound(paths.map((p) => transformPath(p, matrix))), rule, clips: [] };
    this.finder.clips.push([shape]);
    return this.finder.clips.length - 1;
  }

  /** The clips that hold for an element: those around it and its own. */
  private clipsOf(element: SvgElement, place: Place): readonly number[] {
    const reference = parseReference(place.style['clip-path']);
    const clipPath = reference && this.ids.get(reference.id);
    // A clip belongs to the element it is set on; it is not inherited but by what lies in it.
    if (clipPath?.name !== 'clipPath') return place.clips;
    if (place.within.has(clipPath)) {
      this.finder.unread('clips that clip themselves');
      return place.clips;
    }
    if (this.isTooDeep(place)) return place.clips;
    let matrix = place.matrix;
    if (clipPath.attributes.get('clipPathUnits') === 'objectBoundingBox') {
      const box = elementBounds(element, place.view);
      if (!box) {
        this.finder.unread('clips sized by what they clip, read without them');
        return place.clips;
      }
      matrix = compose(compose(scaling(box.width, box.height), translation(box.x, box.y)), matrix);
    }
    const style = this.cascade.of(clipPath, {});
    matrix = compose(this.transformOf(style), matrix);
    const inner: Place = {
      matrix,
      style,
      view: place.view,
      clips: [],
      group: '',
      within: new Set(place.within).add(clipPath),
      depth: place.depth + 1,
      inClip: true,
    };
    const own = this.clipsOf(clipPath, { ...inner, clips: [] });
    const first = this.finder.shapes.length;
    for (const child of clipPath.children) this.visit(child, inner);
    const shapes = this.finder.shapes.splice(first);
    this.finder.clips.push(
      shapes.map((shape) => ({
        paths: shape.paths,
        rule: shape.fill?.rule ?? 'nonzero',
        clips: [...shape.clips, ...own],
      })),
    );
    return [...place.clips, this.finder.clips.length - 1];
  }

  private draw(element: SvgElement, place: Place): void {
    const { style, matrix } = place;
    const outlined = outlineOf(element, place.view);
    if (!outlined) {
      this.finder.unread(`elements called “${element.name.slice(0, 40)}”`);
      return;
    }
    if (outlined.damaged) this.finder.unread('outlines that break off, read up to there');
    if (outlined.paths.length === 0 && element.name !== 'path') return;
    if ((style.visibility ?? 'visible') !== 'visible') {
      this.finder.unread('hidden shapes and groups');
      return;
    }
    if (outlined.paths.length === 0) {
      this.point(element, place);
      return;
    }
    const paths = outlined.paths.map((path) => transformPath(path, matrix));
    if (place.inClip) {
      const rule = style['clip-rule'] === 'evenodd' ? 'evenodd' : 'nonzero';
      this.finder.shape({ paths, group: 0, fill: { colour: PLAIN, rule }, stroke: null, clips: place.clips });
      return;
    }
    for (const end of MARKERS)
      if (style[end] && style[end] !== 'none') this.finder.unread('arrow heads and other marks on lines');
    const { fill, stroke } = this.paints.of(style, matrix, place.view);
    if (!fill && !stroke) {
      this.finder.unread('shapes with neither fill nor line');
      return;
    }
    const colour = stroke?.colour ?? (fill as ReadFill).colour;
    const group = this.finder.groupOf(place.group, colour, fill !== null);
    this.finder.shape({ paths, group, fill, stroke, clips: place.clips });
  }

  /** A path of no length, which is a point where its ends are drawn round or square. */
  private point(element: SvgElement, { style, matrix, view, group, inClip }: Place): void {
    const start = pointOf(element);
    const stroke = this.paints.strokeOf(style, matrix, view);
    if (!start || !stroke || inClip || stroke.cap === 'butt') return;
    this.finder.point(applyMatrix(matrix, start), { name: group, colour: stroke.colour });
  }

  private words(element: SvgElement, place: Place): void {
    if (place.inClip || (place.style.visibility ?? 'visible') !== 'visible') return;
    const { lines, unread } = svgTextLines(element, place.style, place.view, (e, style) => this.cascade.of(e, style));
    if (unread > 0) this.finder.unread('words that follow a curve', unread);
    for (const { style, matrix, ...line } of lines) {
      const colour = this.paints.fillOf(style)?.colour ?? this.paints.strokeOf(style, place.matrix, place.view)?.colour;
      if (!colour) continue;
      const group = this.finder.groupOf(place.group, colour, true);
      this.finder.text({ ...line, matrix: compose(matrix, place.matrix), group });
    }
  }
}

/** Whether a child of a switch is for this reader: no extensions, English or no language at all. */
const suits = (element: SvgElement): boolean =>
  element.name !== 'foreignObject' &&
  !SILENT.has(element.name) &&
  element.attributes.get('requiredExtensions') === undefined &&
  /^$|\ben\b/.test(element.attributes.get('systemLanguage') ?? '');
