/** The settings of an operation that hold: those of the chart, and over them what was typed. */
import { NO_SETTINGS, type OperationSettings, type SettingName, type Settings } from '../schema/shop/settings';

/** The settings that hold. */
export const inForce = ({ charted, typed }: Pick<OperationSettings, 'charted' | 'typed'>): Settings =>
  // What was not typed is not there, rather than undefined.
  ({ ...NO_SETTINGS, ...charted, ...typed }) as Settings;

/** Where a setting comes from; null where it is not given at all. */
export function sourceOf(
  { charted, from, typed }: OperationSettings,
  which: SettingName,
): 'typed' | 'row' | 'between' | null {
  if (typed[which] !== undefined) return 'typed';
  return charted !== null && charted[which] !== NO_SETTINGS[which] ? from : null;
}
