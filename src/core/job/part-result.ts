/** A part of a job made ready, where it lies on the sheet, with all that belongs to it. */
import type { Box } from '../geometry/point';
import type { Strength } from '../inspect/strength';
import type { Linework } from '../kinds/steps';
import type { WorkedPart } from '../kinds/work';
import type { PreparedPart } from '../prepare/prepared';
import type { LetterReadability } from '../prepare/readability';

/** A part prepared, with what its steps draw, where it lies on the sheet, and how strong it is. */
export type PartResult = WorkedPart & {
  /** Thin places and tight gaps. */
  readonly strength: Strength;
  /** How readable its letters are, of those that something was done to. */
  readonly readability: readonly LetterReadability[];
  /** Bounds of what is cut or drawn of it. */
  readonly size: Box;
};

type WithIt = Omit<PartResult, keyof PreparedPart>;

/** A prepared part with what else belongs to it. What is moved only when asked for stays so. */
export const partResult = (ready: PreparedPart, withIt: WithIt): PartResult => new Result(ready, withIt);

class Result implements PartResult {
  readonly id: string;
  readonly matrix: PreparedPart['matrix'];
  readonly keep: PreparedPart['keep'];
  readonly sources: PreparedPart['sources'];
  readonly members: PreparedPart['members'];
  readonly overlaps: boolean;
  readonly ownBox: Box;
  readonly overall: PreparedPart['overall'];
  readonly own: PreparedPart;
  readonly strength: Strength;
  readonly readability: readonly LetterReadability[];
  readonly linework: Linework;
  readonly size: Box;

  constructor(
    private readonly ready: PreparedPart,
    { own, strength, readability, linework, size }: WithIt,
  ) {
    this.id = ready.id;
    this.matrix = ready.matrix;
    this.keep = ready.keep;
    this.sources = ready.sources;
    this.members = ready.members;
    this.overlaps = ready.overlaps;
    this.ownBox = ready.ownBox;
    this.overall = ready.overall;
    this.own = own;
    this.strength = strength;
    this.readability = readability;
    this.linework = linework;
    this.size = size;
  }

  get solid() {
    return this.ready.solid;
  }
  get bare() {
    return this.ready.bare;
  }
  get outlines() {
    return this.ready.outlines;
  }
  get kept() {
    return this.ready.kept;
  }
  get frames() {
    return this.ready.frames;
  }
  get openPaths() {
    return this.ready.openPaths;
  }
  get pieces() {
    return this.ready.pieces;
  }
  get box() {
    return this.ready.box;
  }
  get handMade() {
    return this.ready.handMade;
  }
  get bridged() {
    return this.ready.bridged;
  }
  get notes() {
    return this.ready.notes;
  }
}
