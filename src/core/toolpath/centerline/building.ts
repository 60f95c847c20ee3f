/** Tracks as they are made, and the meetings their ends come to. */
import { Edges } from './edges';
import type { Port, TrackPoint } from './track';

/** What a branch became towards one of its ends: the nearest track, and whether it goes all the way; or none. */
export type Reach = { readonly port: Port; readonly whole: boolean } | null;

export class Building extends Edges {
  readonly tracks: TrackPoint[][] = [];
  readonly through: [Port, Port][] = [];
  readonly alongEdge: [Port, Port][] = [];
  private readonly leaders: number[] = [];
  /** The meeting each end of each track belongs to; -1 for none. */
  readonly at: [number, number][] = [];

  newMeeting(): number {
    this.leaders.push(this.leaders.length);
    return this.leaders.length - 1;
  }
  meeting(id: number): number {
    let at = id;
    while (this.leaders[at] !== at) at = this.leaders[at] as number;
    return at;
  }
  unite(a: number, b: number): void {
    if (a >= 0 && b >= 0) this.leaders[this.meeting(a)] = this.meeting(b);
  }
  add(points: TrackPoint[], from: number, to: number): number {
    this.tracks.push(points);
    this.at.push([from, to]);
    return this.tracks.length - 1;
  }
}
