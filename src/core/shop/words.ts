/** The words of the shop: what settings are called, and how their values are written. */
import type { OperationKind } from '../schema/operations';
import type { MachineKind } from '../schema/shop/machine';
import type { SettingName, Settings } from '../schema/shop/settings';
import { formatLength, type LengthUnit } from '../units/quantity';

/** What a kind of machine is called. */
export const MACHINE_WORDS: Readonly<Record<MachineKind, string>> = {
  laser: 'laser',
  plasma: 'plasma',
  'water jet': 'water jet',
  router: 'router',
  engraver: 'rotary engraver',
  knife: 'knife',
  pen: 'pen',
};

/** What a setting is called. */
export const SETTING_WORDS: Readonly<Record<SettingName, string>> = {
  speed: 'Speed',
  power: 'Power',
  current: 'Current',
  passes: 'Passes',
  depth: 'Depth',
  lastPass: 'Last pass',
  gas: 'Gas',
  rowDistance: 'Row distance',
  kerf: 'Kerf',
  tool: 'Tool',
};

/** Speeds are shown by the second in mm, and by the minute in inches. */
export const speedUnit = (unit: LengthUnit): string => (unit === 'mm' ? 'mm/s' : 'in/min');
/** What is shown per mm a second. */
export const speedScale = (unit: LengthUnit): number => (unit === 'mm' ? 1 : 60 / 25.4);

/** A speed in mm a second as it is shown. */
export const formatSpeed = (mmPerSecond: number, unit: LengthUnit): string =>
  `${Number((mmPerSecond * speedScale(unit)).toPrecision(4))} ${speedUnit(unit)}`;

/** A setting as it is shown; "–" where it is not given. */
export function formatSetting<N extends SettingName>(which: N, value: Settings[N], unit: LengthUnit): string {
  if (value === null || value === '') return '–';
  if (typeof value === 'string') return value;
  switch (which) {
    case 'speed':
      return formatSpeed(value, unit);
    case 'power':
      return `${value} %`;
    case 'current':
      return `${value} A`;
    case 'passes':
      return String(value);
    default:
      return formatLength(value, unit, unit === 'mm' ? 2 : 3);
  }
}

const IN_LINE: Readonly<Partial<Record<SettingName, (value: string) => string>>> = {
  passes: (value) => (value === '1' ? 'one pass' : `${value} passes`),
  depth: (value) => `${value} deep`,
  lastPass: (value) => `last ${value}`,
  rowDistance: (value) => `rows ${value} apart`,
  kerf: (value) => `kerf ${value}`,
};

/** A setting as it is shown among others in one line. */
export const settingInLine = <N extends SettingName>(which: N, value: Settings[N], unit: LengthUnit): string =>
  (IN_LINE[which] ?? ((written: string) => written))(formatSetting(which, value, unit));

const BY_BEAM: readonly SettingName[] = ['speed', 'power', 'passes', 'depth', 'gas'];
const BY_TOOL: readonly SettingName[] = ['speed', 'passes', 'depth', 'lastPass', 'tool'];

const USED: Readonly<Record<MachineKind, readonly SettingName[]>> = {
  laser: BY_BEAM,
  plasma: ['speed', 'current', 'gas'],
  'water jet': ['speed', 'passes', 'depth'],
  router: BY_TOOL,
  engraver: BY_TOOL,
  knife: ['speed', 'passes', 'depth', 'tool'],
  pen: ['speed', 'passes', 'tool'],
};

/** The settings that matter for an operation on a machine; all where the machine is not known. */
export function settingsUsed(machine: MachineKind | null, kind: OperationKind): readonly SettingName[] {
  const own = machine === null ? ([...BY_BEAM, 'current', 'tool'] as const) : USED[machine];
  return [
    ...own,
    ...(kind === 'engrave' ? (['rowDistance'] as const) : []),
    ...(kind === 'cut' ? (['kerf'] as const) : []),
  ];
}
