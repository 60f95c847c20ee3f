/** Commands on what a job takes from the shop: its machine, and the settings that follow from machine, material and thickness. */
import { materialNamed } from '../document/material';
import type { Job, JobMachine, Operation } from '../document/schema';
import { SETTING_NAMES, type SettingName, type Settings } from '../schema/shop/settings';
import type { Shop } from '../schema/shop/shop';
import { processOf } from '../shop/can';
import { chartedFor, NOT_CHARTED } from '../shop/charted';
import { inForce } from '../shop/in-force';
import { widthOf } from '../toolpath/hatch/tool';
import { changed } from './changed';
import { type Stock, setStock } from './stock';

/** What of the shop settings hang on. */
export type AtHand = Pick<Shop, 'machines' | 'materials' | 'tools' | 'chart'>;

/** The job's machine as the shop has it now: by its id, or in another shop by what it is called. */
const machineIn = (shop: AtHand, machine: JobMachine | null) =>
  machine &&
  (shop.machines.find((m) => m.id === machine.id) ??
    shop.machines.find((m) => m.entry.name === machine.name && m.entry.kind === machine.kind));

/**
 * The settings of all operations as the cut charts say for the job's machine, material and thickness; what was typed stays. The kerf of
 * the stock is that of its first cut, unless it was typed.
 */
export function takeFromChart(job: Job, shop: AtHand): Job {
  // Where the shop has not come, nothing can be said, and what was taken stays.
  if (shop.machines.length + shop.materials.length + shop.chart.length === 0) return job;
  const machine = machineIn(shop, job.machine);
  const material = materialNamed(
    job.sheet.material,
    shop.materials.map((m) => ({ ...m.entry, id: m.id })),
  );
  return changed(job, (draft) => {
    for (const operation of draft.operations) {
      const said =
        machine && material
          ? chartedFor(shop.chart, {
              machine: machine.id,
              material: material.id,
              thickness: job.sheet.thickness,
              kind: operation.kind,
            })
          : NOT_CHARTED;
      Object.assign(operation.settings, said);
      measureTool(operation, shop);
    }
    const cut = draft.operations.find((o) => o.kind === 'cut' && o.on);
    const kerf = cut?.settings.charted?.kerf;
    const { kerf: now, kerfFrom } = draft.sheet;
    // One that was never said to follow the material, in older jobs, may have been typed.
    if (kerf !== undefined && kerf !== null && (kerfFrom === 'material' || (kerfFrom === null && now === null))) {
      draft.sheet.kerf = kerf;
      draft.sheet.kerfFrom = 'material';
    }
  });
}

/** How wide the tool in use works, as the shop has it by that name. A tool that the shop does not have stays as it was known. */
function measureTool({ settings }: Operation, { tools }: Pick<AtHand, 'tools'>): void {
  const name = inForce(settings).tool;
  const tool = tools.find((t) => t.entry.name === name)?.entry;
  if (tool) settings.toolWidth = Math.min(1000, Math.max(0.001, Math.round(widthOf(tool) * 1e3) / 1e3));
  else if (name === '') settings.toolWidth = null;
}

/** The tool of an operation, by its name, typed by hand; undefined: as the chart says. */
export const typeTool = (job: Job, operationId: string, name: string | undefined, shop: Pick<AtHand, 'tools'>): Job =>
  changed(typeSetting(job, operationId, 'tool', name), (draft) => {
    const operation = draft.operations.find((o) => o.id === operationId);
    if (!operation) return;
    operation.settings.toolWidth = null;
    measureTool(operation, shop);
  });

/** Another machine, or none, with what follows: how the stock is cut, and all settings. */
export function setMachine(job: Job, machine: JobMachine | null, shop: AtHand): Job {
  const next = changed(job, (draft) => {
    draft.machine = machine;
  });
  return setStockFrom(next, machine ? { process: processOf(machine) } : {}, shop);
}

/** Another material, thickness or way of cutting, with what follows from the shop. */
export const setStockFrom = (job: Job, stock: Stock, shop: AtHand): Job =>
  takeFromChart(
    setStock(
      job,
      stock,
      shop.materials.map((m) => m.entry),
    ),
    shop,
  );

/** A setting of an operation typed by hand, which then stays; undefined: as the chart says. */
export const typeSetting = <N extends SettingName>(
  job: Job,
  operationId: string,
  which: N,
  value: Settings[N] | undefined,
): Job =>
  changed(job, (draft) => {
    const typed = draft.operations.find((o) => o.id === operationId)?.settings.typed;
    if (!typed) return;
    if (value === undefined) delete typed[which];
    else typed[which] = value;
  });

/** Something that became different with another machine or stock. */
export type Difference = {
  readonly operation: Operation | null;
  readonly which: SettingName | 'kerf' | 'leastWidth';
  readonly before: Settings[SettingName];
  readonly after: Settings[SettingName];
};

/** What settings, and what of the stock, are other in a job than in the one it was made from. */
export function differences(before: Job, after: Job): Difference[] {
  const out: Difference[] = [];
  for (const which of ['leastWidth', 'kerf'] as const)
    if (before.sheet[which] !== after.sheet[which])
      out.push({ operation: null, which, before: before.sheet[which], after: after.sheet[which] });
  for (const operation of after.operations) {
    const old = before.operations.find((o) => o.id === operation.id);
    if (!old || old.settings === operation.settings) continue;
    const [was, is] = [inForce(old.settings), inForce(operation.settings)];
    // That of the stock is told already.
    for (const which of SETTING_NAMES)
      if (was[which] !== is[which] && !(which === 'kerf' && before.sheet.kerf !== after.sheet.kerf))
        out.push({ operation, which, before: was[which], after: is[which] });
  }
  return out;
}
