/**
 * What a shop begins with: machines and materials as they are common, and settings to try first. All figures are made up to be in the
 * right region, and are marked as not tried.
 */
import type { OperationKind } from '../schema/operations';
import { type Machine, machineSchema } from '../schema/shop/machine';
import { type Material, materialSchema } from '../schema/shop/material';
import { type Settings, settingsSchema } from '../schema/shop/settings';
import { type ChartRow, type Kept, type Shop, type ShopTool, shopToolSchema } from '../schema/shop/shop';
import { doneBy } from './can';
import { STARTING_MATERIALS } from './starting-materials';

const machine = (id: string, entry: Parameters<typeof machineSchema.parse>[0]): Kept<Machine> => ({
  id,
  entry: machineSchema.parse(entry),
});

const MACHINES: readonly Kept<Machine>[] = [
  machine('laser', {
    name: 'Laser',
    kind: 'laser',
    bed: { width: 600, height: 400 },
    origin: 'upper left',
    axes: { y: 'down' },
    speed: { x: 600, y: 300 },
    acceleration: { x: 8000, y: 3000 },
    idleSpeed: 400,
    pierceSeconds: 0.1,
    areas: { rows: 'own', way: 'both', runUp: 6, turnSeconds: 0.05 },
    file: { format: 'svg', curves: 'curves' },
  }),
  machine('plasma', {
    name: 'Plasma table',
    kind: 'plasma',
    bed: { width: 1250, height: 1250 },
    speed: { x: 250, y: 250 },
    acceleration: { x: 1000, y: 1000 },
    idleSpeed: 200,
    pierceSeconds: 0.6,
    liftSeconds: 1.2,
    cornerMm: 0.1,
    file: { format: 'dxf', dxf: 'R12', curves: 'arcs' },
  }),
  machine('router', {
    name: 'Router',
    kind: 'router',
    bed: { width: 1200, height: 800 },
    speed: { x: 120, y: 120 },
    acceleration: { x: 600, y: 600 },
    idleSpeed: 100,
    liftSeconds: 1.5,
    changeSeconds: 60,
    file: { format: 'dxf', dxf: '2000', curves: 'arcs', perOperation: true },
  }),
  machine('engraver', {
    name: 'Rotary engraver',
    kind: 'engraver',
    bed: { width: 400, height: 300 },
    speed: { x: 60, y: 60 },
    acceleration: { x: 500, y: 500 },
    idleSpeed: 80,
    liftSeconds: 0.8,
    changeSeconds: 45,
    file: { format: 'hpgl', curves: 'lines' },
  }),
  machine('knife', {
    name: 'Knife',
    kind: 'knife',
    bed: { width: 1000, height: 600 },
    speed: { x: 800, y: 800 },
    acceleration: { x: 6000, y: 6000 },
    idleSpeed: 800,
    liftSeconds: 0.1,
    file: { format: 'hpgl', curves: 'lines' },
  }),
  machine('pen', {
    name: 'Pen table',
    kind: 'pen',
    bed: { width: 800, height: 600 },
    speed: { x: 500, y: 500 },
    acceleration: { x: 4000, y: 4000 },
    idleSpeed: 500,
    liftSeconds: 0.15,
    changeSeconds: 10,
    file: { format: 'svg', curves: 'curves' },
  }),
];

const tool = (id: string, entry: Parameters<typeof shopToolSchema.parse>[0]): Kept<ShopTool> => ({
  id,
  entry: shopToolSchema.parse(entry),
});

const TOOLS: readonly Kept<ShopTool>[] = [
  tool('end-mill-3', { name: 'End mill 3', shape: 'flat', tip: 3, depth: 3, feed: 1500, diameter: 3 }),
  tool('end-mill-1', { name: 'End mill 1', shape: 'flat', tip: 1, depth: 1, feed: 700, diameter: 3 }),
  tool('cone-60', { name: 'Cone 60°', shape: 'cone', tip: 0.2, angle: 60, depth: 0.4, feed: 600, diameter: 4 }),
  tool('cone-30', { name: 'Cone 30°', shape: 'cone', tip: 0.1, angle: 30, depth: 0.3, feed: 500, diameter: 4 }),
  tool('ball-1', { name: 'Round end 1', shape: 'round', tip: 1, depth: 0.3, feed: 700, diameter: 3 }),
  tool('blade', { name: 'Blade', shape: 'line', tip: 0.1, depth: 1, feed: 18_000 }),
  tool('pen-black', { name: 'Black pen 0.8', shape: 'line', tip: 0.8, feed: 6_000, colour: '#1F2A30' }),
  tool('pen-white', { name: 'White pen 1', shape: 'line', tip: 1, feed: 5_000, colour: '#FFFFFF' }),
];

/** To two digits, as one sets a machine for a first try. */
const first = (value: number): number => Number(value.toPrecision(2));

/** How hard a material is to work, for each machine; a machine that does not take it is left out. */
type Workable = Partial<Record<Machine['kind'], number>>;

type Draft = Partial<Settings>;
type SettingsOf = (hard: number, thickness: number, material: Material) => Draft;

const cuts: Readonly<Partial<Record<Machine['kind'], SettingsOf>>> = {
  laser: (hard, mm, { kerfsMm }) => ({
    speed: first(60 / (hard * mm)),
    power: 70,
    passes: mm > 9 ? 2 : 1,
    gas: 'air',
    kerf: kerfsMm.laser ?? 0.2,
    depth: mm,
  }),
  plasma: (hard, mm, { kerfsMm }) => ({
    speed: first(110 / (hard * mm ** 0.8)),
    current: first(30 + 4 * mm),
    gas: 'air',
    kerf: kerfsMm.plasma ?? 1.2,
    depth: mm,
  }),
  'water jet': (hard, mm, { kerfsMm }) => ({
    speed: first(40 / (hard * mm)),
    kerf: kerfsMm['water jet'] ?? 0.9,
    depth: mm,
  }),
  router: (hard, mm) => ({
    speed: first(30 / hard),
    passes: Math.max(1, Math.ceil((mm * hard) / 2)),
    depth: mm,
    lastPass: mm > 2 ? 0.3 : null,
    kerf: 3,
    tool: 'End mill 3',
  }),
  knife: (hard, mm) => ({
    speed: first(300 / hard),
    passes: Math.max(1, Math.ceil(mm / 2)),
    depth: mm,
    kerf: 0,
    tool: 'Blade',
  }),
};

const works: Readonly<Partial<Record<Machine['kind'], Partial<Record<OperationKind, (hard: number) => Draft>>>>> = {
  laser: {
    engrave: (hard) => ({
      speed: first(280 / hard ** 0.5),
      power: 35,
      rowDistance: 0.1,
      depth: 0.3,
      gas: 'air',
    }),
    mark: (hard) => ({ speed: first(200 / hard ** 0.5), power: 15, gas: 'air' }),
    score: (hard) => ({ speed: first(100 / hard ** 0.5), power: 20, depth: 0.3, gas: 'air' }),
  },
  plasma: { mark: () => ({ speed: 80, current: 15, gas: 'argon' }) },
  'water jet': { score: (hard) => ({ speed: first(60 / hard), depth: 0.5, kerf: 0.9 }) },
  router: {
    engrave: (hard) => ({ speed: first(15 / hard), depth: 0.8, rowDistance: 0.7, tool: 'End mill 1', kerf: 1 }),
    score: (hard) => ({ speed: first(20 / hard), depth: 0.6, tool: 'Cone 60°' }),
  },
  engraver: {
    engrave: (hard) => ({ speed: first(12 / hard), depth: 0.4, rowDistance: 0.3, tool: 'Cone 60°' }),
    mark: (hard) => ({ speed: first(20 / hard), depth: 0.1, tool: 'Cone 30°' }),
    score: (hard) => ({ speed: first(14 / hard), depth: 0.3, tool: 'Cone 30°' }),
  },
  knife: { score: (hard) => ({ speed: first(400 / hard), depth: 0.2, tool: 'Blade' }) },
  pen: {
    engrave: () => ({ speed: 80, rowDistance: 0.7, tool: 'Black pen 0.8' }),
    mark: () => ({ speed: 100, tool: 'Black pen 0.8' }),
  },
};

/** Thicknesses that a chart begins with: the thinnest and the thickest in stock, and one between. */
const chartThicknesses = ({ thicknesses }: Material): number[] => {
  const all = thicknesses.map((t) => t.mm).sort((a, b) => a - b);
  return [...new Set([all[0], all[all.length >> 1], all[all.length - 1]].filter((mm) => mm !== undefined))];
};

function chartOf(
  machines: readonly Kept<Machine>[],
  materials: readonly (Kept<Material> & { hard: Workable })[],
): Kept<ChartRow>[] {
  const rows: Kept<ChartRow>[] = [];
  for (const { id, entry: machine } of machines)
    for (const { id: material, entry, hard } of materials) {
      const factor = hard[machine.kind];
      if (factor === undefined) continue;
      const fastest = Math.min(machine.speed.x, machine.speed.y);
      const add = (kind: OperationKind, thickness: number | null, settings: Draft) =>
        rows.push({
          id: `${id}_${material}_${kind}${thickness === null ? '' : `_${Math.round(thickness * 100)}`}`,
          entry: {
            machine: id,
            material,
            thickness,
            kind,
            settings: settingsSchema.parse({
              ...settings,
              speed: Math.min(settings.speed ?? fastest, fastest),
            }),
            tried: false,
          },
        });
      for (const kind of doneBy(machine.kind))
        if (kind === 'cut')
          for (const mm of chartThicknesses(entry)) add(kind, mm, cuts[machine.kind]?.(factor, mm, entry) ?? {});
        else add(kind, null, works[machine.kind]?.[kind]?.(factor) ?? {});
    }
  return rows;
}

/** What a shop begins with. */
export function startingShop(): Shop {
  const materials = STARTING_MATERIALS.map(({ id, hard, ...entry }) => ({
    id,
    hard,
    entry: materialSchema.parse(entry),
  }));
  return {
    machines: [...MACHINES],
    materials: materials.map(({ id, entry }) => ({ id, entry })),
    tools: [...TOOLS],
    chart: chartOf(MACHINES, materials),
  };
}
