/** Sets that are joined one after the other (union–find with path halving; Tarjan and van Leeuwen 1984). */
import { numberAt } from './elements';

/** Disjoint sets of numbers: which numbers have been joined, directly or through others. */
export class DisjointSets {
  private readonly leader: number[];

  /** Each of the first `count` numbers is a set of its own. */
  constructor(count = 0) {
    this.leader = Array.from({ length: count }, (_, i) => i);
  }

  /** One more set, by its number. */
  add(): number {
    this.leader.push(this.leader.length);
    return this.leader.length - 1;
  }

  /** The number that stands for the set of another: the same for all in it. */
  find(i: number): number {
    const { leader } = this;
    let at = i;
    while (leader[at] !== at) {
      const up = numberAt(leader, numberAt(leader, at));
      leader[at] = up;
      at = up;
    }
    return at;
  }

  /** Join two sets; what stands for the second stands for both. */
  join(i: number, j: number): void {
    this.leader[this.find(i)] = this.find(j);
  }

  areJoined(i: number, j: number): boolean {
    return this.find(i) === this.find(j);
  }

  /** The members of each set among a list whose places are the numbers: in order, sets by their first. */
  gather<T>(list: readonly T[]): T[][] {
    const groups = new Map<number, T[]>();
    list.forEach((entry, i) => {
      const root = this.find(i);
      const group = groups.get(root);
      if (group) group.push(entry);
      else groups.set(root, [entry]);
    });
    return [...groups.values()];
  }
}
