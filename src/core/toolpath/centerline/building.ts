/** Tracks as they are made, and the meetings their ends come to. */
import { DisjointSets } from '../../geometry/disjoint-sets';
import { SampledEdges } from './edges';
import type { Port, TrackPoint } from './track';

/** What a branch became towards one of its ends: the nearest track, and whether it goes all the way; or none. */
export type BranchEnd = { readonly port: Port; readonly whole: boolean } | null;

/** The tracks of a skeleton while they are built, with the edges they lie between. */
export class Building extends SampledEdges {
  readonly tracks: TrackPoint[][] = [];
  readonly through: [Port, Port][] = [];
  readonly alongEdge: [Port, Port][] = [];
  private readonly meetings = new DisjointSets();
  /** The meeting each end of each track belongs to; -1 for none. */
  readonly at: [number, number][] = [];

  newMeeting(): number {
    return this.meetings.add();
  }
  meeting(id: number): number {
    return this.meetings.find(id);
  }
  unite(a: number, b: number): void {
    if (a >= 0 && b >= 0) this.meetings.join(a, b);
  }
  add(points: TrackPoint[], from: number, to: number): number {
    this.tracks.push(points);
    this.at.push([from, to]);
    return this.tracks.length - 1;
  }
}
