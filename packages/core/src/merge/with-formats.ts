import { formatted, rawKey, type ValueManner } from './formats';
import type { MergeSlot, MergeValues } from './render';

/**
 * Writes what these slots ask for in a format of their own into a person's values. What has no value stays
 * without one.
 */
export function withFormats(
  values: MergeValues,
  slots: readonly MergeSlot[],
  manner: ValueManner,
): MergeValues {
  const asked = slots.filter((slot) => slot.format !== undefined);
  if (asked.length === 0) return values;
  const out = { ...values };
  for (const { key, format } of asked) {
    const raw = values[rawKey(format!.of)] ?? values[format!.of];
    out[key] = raw ? formatted(format!.kind, format!.as, raw, manner) : raw;
  }
  return out;
}
