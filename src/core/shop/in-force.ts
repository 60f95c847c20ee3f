/** The settings of an operation that hold: those of the chart, over them what was typed, and the kerf of the stock they are for. */
import type { Operation } from '../schema/operations';
import type { Sheet } from '../schema/sheet';
import { NO_SETTINGS, type OperationSettings, type SettingName, type Settings } from '../schema/shop/settings';

/** The settings that hold, whatever the stock. */
export const inForce = ({ charted, typed }: Pick<OperationSettings, 'charted' | 'typed'>): Settings =>
  // What was not typed is not there, rather than undefined.
  ({ ...NO_SETTINGS, ...charted, ...typed }) as Settings;

/** What of the stock settings hang on. */
type Stock = Pick<Sheet, 'kerf' | 'kerfFrom'>;
type OfOperation = Pick<Operation, 'kind' | 'settings'>;

/**
 * The settings that hold on some stock, whose kerf is that of its cuts. A kerf typed for the operation holds before that of the stock; where that follows its material,
 * the chart's holds before it, since a job may have several cuts.
 */
export function settingsOn({ kind, settings }: OfOperation, { kerf, kerfFrom }: Stock): Settings {
  const now = inForce(settings);
  if (kind !== 'cut' || settings.typed.kerf !== undefined) return now;
  return { ...now, kerf: kerfFrom === 'material' ? (now.kerf ?? kerf) : (kerf ?? now.kerf) };
}

/** Where a setting comes from: typed, a row of the chart or two, the stock; null where it is not given at all. */
export function sourceOf(
  operation: OfOperation,
  stock: Stock,
  which: SettingName,
): 'typed' | 'row' | 'between' | 'stock' | null {
  const { charted, from, typed } = operation.settings;
  if (typed[which] !== undefined) return 'typed';
  const value = settingsOn(operation, stock)[which];
  if (value === NO_SETTINGS[which]) return null;
  return charted !== null && charted[which] === value ? from : 'stock';
}
