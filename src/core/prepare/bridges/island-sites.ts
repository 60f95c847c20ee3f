/** The sites that bridges of one shape are looked for on, and the good places there: found once each. */
import type { Outline } from '../outline';
import type { BridgeMemory } from './bridge-memory';
import { poolFor } from './choose';
import type { VoidEdges } from './edges';
import type { Island } from './islands';
import type { BridgeSetting } from './notes';
import { type Candidate, type Site, usualAcross } from './search';
import { type LetterEvidence, longestAcross, siteOn } from './sites';

type SitesIn = { readonly setting: BridgeSetting; readonly remembered: BridgeMemory; readonly asked: number };

/** The sites of a shape's islands under one setting; `asked` is the width asked for, in mm. */
export class IslandSites {
  private readonly sites = new Map<string, Site>();
  private readonly evidences = new Map<number, LetterEvidence | null>();
  private readonly setting: BridgeSetting;
  private readonly remembered: BridgeMemory;
  /** Tells settings apart under which the same places are good. */
  private readonly manner: string;

  constructor(
    private readonly shape: readonly Outline[],
    private readonly edges: VoidEdges,
    { setting, remembered, asked }: SitesIn,
  ) {
    this.setting = setting;
    this.remembered = remembered;
    const { step, leastMm, thicknessMm } = setting;
    this.manner = JSON.stringify([asked, leastMm, thicknessMm, step.direction, step.sides, step.slanted, step.reads]);
  }

  /** The site of bridges that start on an island. */
  of(island: Island, width: number): Site {
    return this.on(island.outline, island.label, width);
  }

  /** The site of bridges that start on an outline, of the letter with a label. */
  on(outline: number, label: number, width: number): Site {
    const key = `${outline}/${width}`;
    let site = this.sites.get(key);
    if (!site) {
      site = siteOn(this.shape, this.setting, {
        outline,
        label,
        width,
        usual: this.usualOf(outline),
        evidence: this.setting.step.reads ? this.evidenceOf(label) : null,
      });
      this.sites.set(key, site);
    }
    return site;
  }

  /** The usual way across the void from an outline, in mm. */
  usualOf(outline: number): number {
    return this.remembered.usualWay(outline, () =>
      usualAcross(this.edges, outline, longestAcross(this.shape, outline)),
    );
  }

  /** The good places on an island, the cheapest first; more of them where several are wanted. */
  poolOn(island: Island, width: number, several: boolean): readonly Candidate[] {
    return this.remembered.candidates(this.manner, `${island.outline}/${width}/${several}`, () =>
      poolFor(this.edges, this.of(island, width), several),
    );
  }

  private evidenceOf(label: number): LetterEvidence | null {
    let known = this.evidences.get(label);
    if (known === undefined) {
      const frame = this.setting.frames[label];
      known = frame ? this.remembered.evidence(frame) : null;
      this.evidences.set(label, known);
    }
    return known;
  }
}
