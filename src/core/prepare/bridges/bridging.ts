/** The bridges of one shape: those by hand first, then the automatic ones, then the outlines with all of them put in. */
import { DisjointSets } from '../../geometry/disjoint-sets';
import { numberAt } from '../../geometry/elements';
import { applyMatrix, boxHeight, boxWidth, invert, type Point, turnWith } from '../../geometry/point';
import type { LetterFrame } from '../frames';
import { measureOutlines, nestAgain, type Outline } from '../outline';
import { likeThere, type Models, placesIn } from './alike';
import type { BridgeMemory, Ground } from './bridge-memory';
import { placedCandidate, placeOf } from './by-hand';
import { type CandidateSet, cheapest, cheapestSets, widthsFrom } from './choose';
import { conflict } from './conflict';
import type { Standard } from './cost';
import type { VoidEdges } from './edges';
import type { Bridged } from './ground';
import { IslandSites } from './island-sites';
import { countFor, type Island } from './islands';
import { heightOf, type Levelled, levelled } from './level';
import type { Bridge, BridgedIsland, BridgeNotes, BridgeSetting, IslandTrouble, PinnedBridge } from './notes';
import { choiceTogether, type IslandOfLetter, MOST_TOGETHER } from './one-letter';
import { besideOf, flareOf, type Inlay, rewire } from './rewire';
import type { Candidate } from './search';
import { edgesFor, NO_FRAME } from './sites';
import type { Span } from './span';

/** The bridges of a letter are taken from one like it unless they cost this much more there. */
const ALIKE_MORE = 0.3;

/** So many of the best bridges of an island, and sets of them, are tried with those of the other islands of its letter. */
const OPTIONS = 8;

type ChosenBridge = {
  readonly candidate: Candidate;
  readonly width: number;
  readonly flare: number;
  readonly pinnedIndex: number | null;
};

/**
 * Bridges put into one shape: those placed by hand first, then the best for each island, and what is to be said of
 * them.
 */
export class Bridging {
  private readonly edges: VoidEdges;
  private readonly asked: number;
  private readonly least: number;
  private readonly beside: number;
  /** Outlines that hang together, the rims after those of the shape. */
  private readonly hanging: DisjointSets;
  private readonly islandNamed = new Map<string, Island>();
  private readonly chosenFor = new Map<Island, ChosenBridge[]>();
  /** All bridges by the outline around the void they cross: only those can get in each other's way. */
  private readonly across = new Map<number, Candidate[]>();
  private readonly free: (ChosenBridge & { readonly label: number; readonly letter: string })[] = [];
  private readonly trouble = new Map<Island, IslandTrouble>();
  private readonly unplaced: number[] = [];
  private readonly sites: IslandSites;

  private readonly shape: readonly Outline[];
  private readonly islands: readonly Island[];
  private readonly single: ReadonlySet<number>;

  constructor(
    ground: Ground,
    private readonly setting: BridgeSetting,
    private readonly remembered: BridgeMemory,
    private readonly nothing: BridgeNotes,
  ) {
    const { step } = setting;
    this.shape = ground.shape;
    this.islands = ground.islands;
    this.single = ground.single;
    this.hanging = new DisjointSets(ground.shape.length + setting.rims.length);
    this.asked = nothing.askedMm;
    this.least = nothing.leastMm;
    this.beside = besideOf({ shape: step.sides, joints: step.joints });
    this.edges = remembered.edges(this.asked, () => edgesFor(this.shape, setting, this.asked));
    this.sites = new IslandSites(this.shape, this.edges, { setting, remembered, asked: this.asked });
    for (const island of this.islands) this.islandNamed.set(`${island.letter}/${island.rank}`, island);
  }

  /** Bridges placed by hand come first; automatic ones keep clear of them. */
  placeByHand(): void {
    const { step, frames } = this.setting;
    const labelOf = new Map<string, number>();
    frames.forEach((frame, label) => {
      if (!labelOf.has(frame.key)) labelOf.set(frame.key, label);
    });
    step.pinned.forEach((pinned, index) => {
      const label = labelOf.get(pinned.letter);
      const frame = label === undefined ? undefined : frames[label];
      if (label === undefined || !frame) return;
      if (pinned.island === null) this.placeFree(pinned, index, label, frame);
      else {
        const island = this.islandNamed.get(`${pinned.letter}/${pinned.island}`);
        if (!island || this.howOf(island) !== 'hand') return;
        const candidate = placedCandidate(this.edges, this.sites.of(island, this.asked), {
          pinned,
          frame,
          leastMm: this.least,
        });
        if (!candidate || this.isInTheWay(candidate)) this.unplaced.push(index);
        else this.hold(island, candidate, index);
      }
    });
  }

  private placeFree(pinned: PinnedBridge, index: number, label: number, frame: LetterFrame): void {
    const at = placeOf(pinned, frame);
    const nearest = this.edges.nearest(at, this.shape.keys());
    const outline = nearest && numberAt(this.edges.outline, nearest.chord);
    const candidate =
      outline === null
        ? null
        : placedCandidate(this.edges, this.sites.on(outline, label, this.asked), {
            pinned,
            frame,
            leastMm: this.least,
          });
    if (!candidate || this.isInTheWay(candidate)) {
      this.unplaced.push(index);
      return;
    }
    const chosen = this.choose(candidate, index);
    this.free.push({ ...chosen, label, letter: pinned.letter });
    this.note(candidate);
  }

  placeAutomatically(): void {
    const waiting = this.islands.filter(
      (i) =>
        this.howOf(i) === 'auto' || (this.howOf(i) === 'hand' && !this.chosenFor.has(i) && this.hasLostItsBridges(i)),
    );
    // Letters that stand alone come first: what is best there is what the same letters in other company are given.
    const alone = (island: Island) => (new Set(this.shape[island.void.outer]?.labels).size > 1 ? 1 : 0);
    waiting.sort((a, b) => alone(a) - alone(b));
    if (this.setting.step.level && this.setting.step.direction !== 'upright') this.placeLevel(waiting);
    const models: Models = new Map();
    if (this.setting.step.reads) this.placeLetters(waiting, models);
    let unheld = waiting.filter((i) => !this.chosenFor.has(i));
    for (let isLast = false; unheld.length > 0; ) {
      const later: Island[] = [];
      for (const island of unheld) if (!this.placeOn(island, models, isLast)) later.push(island);
      // What could only hang on islands that hang on nothing yet is tried again, and at last hung on those.
      if (later.length === unheld.length) {
        if (isLast) break;
        isLast = true;
      }
      unheld = later;
    }
    for (const island of waiting)
      if (this.chosenFor.has(island) && !this.hangs(island)) this.trouble.set(island, 'no way');
  }

  /** Whether an island hangs on what lies around its void, by way of others or straight. */
  private hangs(island: Island): boolean {
    return this.hanging.areJoined(island.outline, island.void.outer);
  }

  /** Bridges by hand that fit nowhere any more are made up for; an island whose bridges were all deleted stays without. */
  private hasLostItsBridges(island: Island): boolean {
    return this.setting.step.pinned.some((p) => p.letter === island.letter && p.island === island.rank);
  }

  private placeLevel(waiting: readonly Island[]): void {
    const lines = new Map<string, Island[]>();
    for (const island of waiting) {
      const line = this.setting.frames[island.label]?.line ?? '';
      lines.set(line, [...(lines.get(line) ?? []), island]);
    }
    for (const islands of lines.values()) {
      const known = islands.map((island): Levelled & { island: Island } => {
        const site = this.sites.of(island, this.asked);
        const { matrix } = this.frameOf(island);
        const pool = site.standard.usual === Infinity ? [] : this.sites.poolOn(island, this.asked, false);
        const ownHeights = pool.filter((c) => isAlong(c.span.way, site.standard)).map((c) => heightOf(c, matrix));
        return { island, site, matrix, count: this.countOf(island), ownCost: pool[0]?.cost ?? 0, ownHeights };
      });
      levelled(this.edges, known).forEach((candidates, i) => {
        const { island } = known[i] as (typeof known)[number];
        for (const c of candidates ?? []) if (!this.isInTheWay(c)) this.hold(island, c, null);
      });
    }
  }

  /** Whether the island is dealt with: bridged, or beyond help. */
  private placeOn(island: Island, models: Models, isLast: boolean): boolean {
    const count = this.countOf(island);
    const frame = this.frameOf(island);
    const site = this.sites.of(island, this.asked);
    if (site.standard.usual === Infinity) {
      this.trouble.set(island, 'no way');
      return true;
    }
    const hangs = (to: number) => this.hanging.areJoined(to, island.void.outer);
    const may = (c: Candidate) => !this.isInTheWay(c);
    const first = (span: Candidate['span']) => isLast || hangs(span.to.outline);
    const name = this.modelName(island);
    const model = name === null ? undefined : models.get(name);
    if (model) {
      const same = model.places.flatMap((place) => likeThere(this.edges, site, place, frame.matrix) ?? []);
      const cost = same.reduce((sum, c) => sum + c.cost, 0);
      const fits = same.length === model.places.length && same.every(may) && same.some((c) => first(c.span));
      if (fits && cost <= model.cost + ALIKE_MORE * same.length) {
        for (const c of same) this.hold(island, c, null);
        return true;
      }
    }
    let choice: CandidateSet | null = null;
    for (const width of widthsFrom(this.asked, this.least)) {
      const pool = this.sites.poolOn(island, width, count > 1).filter(may);
      const isAsked = this.isCountAsked(island);
      choice = cheapest(this.edges, pool, { count, standard: site.standard, first, isAsked, beside: this.beside });
      if (choice) break;
      // Something fits, only not yet on what hangs.
      if (pool.length > 0 && !isLast) return false;
    }
    if (!choice) {
      if (isLast) this.trouble.set(island, this.isTooSmall(island) ? 'too small' : 'no way');
      return isLast;
    }
    this.holdBy(island, choice, models);
    return true;
  }

  /** Islands of one letter are bridged together, where none of them is and no letter like it was. */
  private placeLetters(waiting: readonly Island[], models: Models): void {
    const byLetter = new Map<string, Island[]>();
    for (const island of waiting) byLetter.set(island.letter, [...(byLetter.get(island.letter) ?? []), island]);
    for (const islands of byLetter.values()) {
      if (islands.length < 2 || islands.length > MOST_TOGETHER || islands.some((i) => this.chosenFor.has(i))) continue;
      if (islands.every((i) => models.has(this.modelName(i) ?? ''))) continue;
      const choice = choiceTogether(
        this.edges,
        islands.map((island) => this.optionsOf(island)),
        { beside: this.beside, holds: (sets) => this.wouldHang(islands, sets) },
      );
      choice?.forEach((set, i) => {
        this.holdBy(islands[i] as Island, set, models);
      });
    }
  }

  private optionsOf(island: Island): IslandOfLetter {
    const site = this.sites.of(island, this.asked);
    const count = this.countOf(island);
    const { matrix } = this.frameOf(island);
    if (site.standard.usual === Infinity) return { island, site, matrix, count, options: [] };
    const pool = this.sites.poolOn(island, this.asked, count > 1).filter((c) => !this.isInTheWay(c));
    const rule = { count, standard: site.standard, first: () => true, isAsked: true, beside: this.beside };
    const singles = pool.slice(0, OPTIONS).map((c): CandidateSet => ({ candidates: [c], cost: c.cost }));
    const sets = count > 1 ? cheapestSets(this.edges, pool, rule, OPTIONS) : [];
    const isEnough = count > 1 && this.isCountAsked(island) && sets.length > 0;
    return { island, site, matrix, count, options: isEnough ? sets : [...sets, ...singles] };
  }

  /** Whether islands would hang on what lies around their voids, straight or by way of each other. */
  private wouldHang(islands: readonly Island[], sets: readonly (readonly Candidate[])[]): boolean {
    const held = new Set<number>();
    for (let before = -1; before < held.size; ) {
      before = held.size;
      islands.forEach((island, i) => {
        const hangs = (to: number) => held.has(to) || this.hanging.areJoined(to, island.void.outer);
        if (sets[i]?.some((c) => hangs(c.span.to.outline))) held.add(island.outline);
      });
    }
    return held.size === islands.length;
  }

  private holdBy(island: Island, { candidates }: CandidateSet, models: Models): void {
    for (const c of candidates) this.hold(island, c, null);
    const name = this.modelName(island);
    if (name === null || models.has(name)) return;
    const places = placesIn(candidates, this.frameOf(island).matrix);
    models.set(name, { places, cost: candidates.reduce((sum, c) => sum + c.cost, 0) });
  }

  /** The name by which islands of like letters share their bridges; null for what shares none. */
  private modelName(island: Island): string | null {
    const { alike } = this.frameOf(island);
    return this.setting.step.alike && alike ? `${alike}/${island.rank}/${this.countOf(island)}` : null;
  }

  private isTooSmall(island: Island): boolean {
    const { box } = this.shape[island.outline] as Outline;
    return Math.min(boxWidth(box), boxHeight(box)) < this.least * 1.1;
  }

  private frameOf(island: Island): LetterFrame {
    return this.setting.frames[island.label] ?? NO_FRAME;
  }

  private howOf(island: Island): 'auto' | 'hand' | 'leave' {
    return this.settingOf(island)?.how ?? 'auto';
  }

  private settingOf(island: Island) {
    return this.setting.step.islands.find((s) => s.letter === island.letter && s.island === island.rank);
  }

  private isCountAsked(island: Island): boolean {
    return (this.settingOf(island)?.count ?? this.setting.step.count) > 0;
  }

  private countOf(island: Island): number {
    const count = this.settingOf(island)?.count ?? this.setting.step.count;
    if (count > 0) return count;
    if (this.single.has(island.outline)) return 1;
    return countFor(this.shape[island.outline] as Outline, this.asked, this.setting.thicknessMm);
  }

  private choose(candidate: Candidate, pinnedIndex: number | null): ChosenBridge {
    const { step } = this.setting;
    const { span } = candidate;
    const usual = this.sites.usualOf(span.from.outline);
    if (step.sides !== 'waisted') return { candidate, width: span.width, flare: 0, pinnedIndex: pinnedIndex };
    // The width at the ends is that of the waist and a flare that hangs on it.
    let waist = span.width;
    for (let k = 0; k < 30; k++)
      waist = span.width - 2 * flareOf({ shape: step.sides, joints: step.joints }, waist, usual);
    return { candidate, width: waist, flare: (span.width - waist) / 2, pinnedIndex: pinnedIndex };
  }

  private hold(island: Island, candidate: Candidate, pinnedIndex: number | null): void {
    const list = this.chosenFor.get(island);
    const chosen = this.choose(candidate, pinnedIndex);
    if (list) list.push(chosen);
    else this.chosenFor.set(island, [chosen]);
    this.note(candidate);
  }

  private note(candidate: Candidate): void {
    const around = this.voidOf(candidate.span);
    const list = this.across.get(around);
    if (list) list.push(candidate);
    else this.across.set(around, [candidate]);
    this.hanging.join(candidate.span.from.outline, candidate.span.to.outline);
  }

  /** The outline around the void that a bridge crosses. */
  private voidOf({ from: { outline } }: Span): number {
    const around = this.setting.stockInside ? 1 : 0;
    const o = this.shape[outline] as Outline;
    return o.depth % 2 === around ? outline : o.parent;
  }

  private isInTheWay(candidate: Candidate): boolean {
    return (this.across.get(this.voidOf(candidate.span)) ?? []).some((c) =>
      conflict(this.edges, c.span, candidate.span, this.beside),
    );
  }

  result(): Bridged {
    const bridges: Bridge[] = [];
    const inlays: Inlay[] = [];
    const add = (chosen: ChosenBridge, label: number, letter: string, rank: number | null): number => {
      bridges.push(this.bridgeOf(chosen, label, letter, rank));
      inlays.push({ span: chosen.candidate.span, label, flare: chosen.flare });
      return bridges.length - 1;
    };
    const islands = this.islands.map((island): BridgedIsland => {
      const indices = (this.chosenFor.get(island) ?? []).map((h) => add(h, island.label, island.letter, island.rank));
      return {
        letter: island.letter,
        rank: island.rank,
        label: island.label,
        outline: this.shape[island.outline] as Outline,
        how: this.howOf(island),
        asked: this.howOf(island) === 'auto' ? this.countOf(island) : indices.length,
        isCountAsked: this.isCountAsked(island),
        bridges: indices,
        hangs: this.hangs(island),
        trouble: this.trouble.get(island) ?? null,
      };
    });
    for (const chosen of this.free) add(chosen, chosen.label, chosen.letter, null);
    const notes: BridgeNotes = { ...this.nothing, islands, bridges, unplaced: this.unplaced };
    const strips = inlays.map(({ span }) => span);
    if (inlays.length === 0) return { shape: this.shape, notes, strips };
    const byVoid = new Map<number, Inlay[]>();
    for (const inlay of inlays) {
      const around = this.voidOf(inlay.span);
      const list = byVoid.get(around);
      if (list) list.push(inlay);
      else byVoid.set(around, [inlay]);
    }
    const touched = new Set(inlays.flatMap(({ span }) => [span.from.outline, span.to.outline]));
    const changed = [...byVoid].flatMap(([around, list]) => this.rewired(around, list));
    const kept = this.shape.filter((_, i) => !touched.has(i));
    return { shape: nestAgain([...kept, ...changed]), notes, strips };
  }

  /** The outlines of a void with its bridges put in; the same objects as long as the same bridges lie there. */
  private rewired(around: number, inlays: readonly Inlay[]): readonly Outline[] {
    const { step } = this.setting;
    const key = [
      this.asked,
      step.sides,
      step.joints,
      ...inlays.flatMap(({ span: { from, to, way, width }, flare, label }) => [
        from.middle.x,
        from.middle.y,
        to.outline,
        way.x,
        way.y,
        width,
        flare,
        label,
      ]),
    ].join();
    return this.remembered.rewired(around, key, () =>
      measureOutlines(rewire(this.shape, this.edges, inlays, { shape: step.sides, joints: step.joints })),
    );
  }

  private bridgeOf(chosen: ChosenBridge, label: number, letter: string, rank: number | null): Bridge {
    const { span } = chosen.candidate;
    const back = invert((this.setting.frames[label] ?? NO_FRAME).matrix);
    const way = turnWith(back, span.way);
    const asked =
      chosen.pinnedIndex === null ? this.asked : (this.setting.step.pinned[chosen.pinnedIndex]?.width ?? this.asked);
    return {
      letter,
      island: rank,
      from: span.from.middle,
      to: span.to.middle,
      width: chosen.width,
      isNarrowed: chosen.width < asked - 1e-6,
      pinnedIndex: chosen.pinnedIndex,
      own: { ...applyMatrix(back, span.from.middle), turn: (Math.atan2(way.y, way.x) * 180) / Math.PI },
      areaMm2: span.area * (chosen.width / span.width),
      toCornerMm: Math.min(...span.from.toCorners, ...span.to.toCorners),
    };
  }
}

const isAlong = (way: Point, { along }: Standard): boolean => Math.abs(way.x * along.x + way.y * along.y) > 0.9;
