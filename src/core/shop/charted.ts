/** What a cut chart says of an operation: a row, or what is reckoned from the two rows about a thickness; never beyond the chart. */
import type { OperationKind } from '../schema/operations';
import type { OperationSettings, Settings } from '../schema/shop/settings';
import type { ChartRow, Kept } from '../schema/shop/shop';

/** What is asked of a cut chart: machine and material by their ids; thickness in mm, null when not given. */
export type Asked = {
  readonly machine: string;
  readonly material: string;
  readonly thickness: number | null;
  readonly kind: OperationKind;
};

/** What a cut chart says, and where it says so. */
export type Charted = Pick<OperationSettings, 'charted' | 'from' | 'tried'>;

/** What a chart says that says nothing. */
export const NOT_CHARTED: Charted = { charted: null, from: null, tried: false };

/** Thicknesses nearer than this are one, in mm. */
const SAME_MM = 0.005;

const rowsFor = (chart: readonly Kept<ChartRow>[], { machine, material, kind }: Omit<Asked, 'thickness'>): ChartRow[] =>
  chart.map((row) => row.entry).filter((r) => r.machine === machine && r.material === material && r.kind === kind);

const said = ({ settings, tried }: ChartRow): Charted => ({ charted: settings, from: 'row', tried });

/** What a cut chart says of an operation. */
export function chartedFor(chart: readonly Kept<ChartRow>[], asked: Asked): Charted {
  const rows = rowsFor(chart, asked);
  const { thickness } = asked;
  const any = rows.find((r) => r.thickness === null);
  const measured = rows
    .filter((r): r is ChartRow & { thickness: number } => r.thickness !== null)
    .sort((a, b) => a.thickness - b.thickness);
  if (thickness !== null) {
    const same = measured.find((r) => Math.abs(r.thickness - thickness) < SAME_MM);
    if (same) return said(same);
    const above = measured.findIndex((r) => r.thickness > thickness);
    const [thinner, thicker] = [measured[above - 1], measured[above]];
    if (thinner && thicker) return { charted: between(thinner, thicker, thickness), from: 'between', tried: false };
  }
  return any ? said(any) : NOT_CHARTED;
}

/** The thicknesses that a chart has rows for, in mm, from thin to thick; those that hold for every thickness are not among them. */
export const chartedThicknesses = (chart: readonly Kept<ChartRow>[], asked: Omit<Asked, 'thickness'>): number[] =>
  rowsFor(chart, asked)
    .flatMap((r) => (r.thickness === null ? [] : [r.thickness]))
    .sort((a, b) => a - b);

/** To as many digits as anybody sets. */
const rounded = (value: number): number => Number(value.toPrecision(4));

/**
 * Settings for a thickness between those of two rows. Speed goes by a power of the thickness that both rows lie on, as the energy for a
 * length of cut does; all else in proportion; passes are whole ones, rather one too many. What only one row gives is not given.
 */
function between(
  thin: ChartRow & { readonly thickness: number },
  thick: ChartRow & { readonly thickness: number },
  thickness: number,
): Settings {
  const share = (thickness - thin.thickness) / (thick.thickness - thin.thickness);
  const [a, b] = [thin.settings, thick.settings];
  const mix = (name: 'power' | 'current' | 'depth' | 'lastPass' | 'rowDistance' | 'kerf'): number | null => {
    const [from, to] = [a[name], b[name]];
    return from === null || to === null ? null : rounded(from + share * (to - from));
  };
  return {
    speed:
      a.speed === null || b.speed === null
        ? null
        : rounded(byPower(thin.thickness, a.speed, thick.thickness, b.speed)(thickness)),
    power: mix('power'),
    current: mix('current'),
    passes: Math.ceil(a.passes + share * (b.passes - a.passes) - 1e-9),
    depth: mix('depth'),
    lastPass: mix('lastPass'),
    gas: b.gas,
    rowDistance: mix('rowDistance'),
    kerf: mix('kerf'),
    tool: b.tool,
  };
}

/** The power law through two points. */
const byPower = (x0: number, y0: number, x1: number, y1: number): ((x: number) => number) => {
  const power = Math.log(y1 / y0) / Math.log(x1 / x0);
  return (x) => y0 * (x / x0) ** power;
};
