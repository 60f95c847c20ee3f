/** Settings of an operation as files say them beside what is drawn: in mm, whatever the unit of the job. */
import type { Operation } from '../schema/operations';
import type { Sheet } from '../schema/sheet';
import type { MachineKind } from '../schema/shop/machine';
import type { SettingName } from '../schema/shop/settings';
import { settingsOn, sourceOf } from './in-force';
import { settingInLine, settingsUsed } from './words';

/** What settings are called in files. */
const NAMES: Readonly<Record<SettingName, string>> = {
  speed: 'speed-mm-s',
  power: 'power-percent',
  current: 'current-a',
  passes: 'passes',
  depth: 'depth-mm',
  lastPass: 'last-pass-mm',
  gas: 'gas',
  rowDistance: 'row-distance-mm',
  kerf: 'kerf-mm',
  tool: 'tool',
};

/** The settings that are given, of those that matter on the machine. */
export const layerSettings = (
  operation: Operation,
  sheet: Pick<Sheet, 'kerf' | 'kerfFrom'>,
  machine: MachineKind | null,
): { readonly name: string; readonly value: string; readonly words: string }[] =>
  settingsUsed(machine, operation.kind).flatMap((which) => {
    if (sourceOf(operation, sheet, which) === null) return [];
    const value = settingsOn(operation, sheet)[which];
    return [{ name: NAMES[which], value: String(value), words: settingInLine(which, value, 'mm') }];
  });
