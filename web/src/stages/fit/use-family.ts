import { FAMILY_PARTS } from '@verdict/core/analyses';
import { unchanged } from '../../workbench/run/unchanged.js';
import type { FieldValue } from '../../workbench/run/field-values.js';
import { useSettings } from '../../workbench/run/use-settings.js';

/** The words that stand for the distribution: asked once for all of Fit, in the address of the plot. */
export const FAMILY_FIELDS = ['family', 'parameters', 'threshold'] as const;
export const isOfFamily = (field: string): boolean => (FAMILY_FIELDS as readonly string[]).includes(field);

/** Parameters that were given belong to their family: another one begins with its own estimated. */
export const familyChange = (field: string, value: FieldValue): Record<string, FieldValue> =>
  field === 'family' ? { family: value, parameters: undefined } : { [field]: value };

/** The distribution with which readings are compared, the same everywhere in Fit. */
export function useFamily() {
  const address = useSettings('plot', FAMILY_PARTS);
  const asked = unchanged(() =>
    Object.fromEntries(
      FAMILY_FIELDS.flatMap((name) => {
        const value = address.settings.value[name];
        return value === undefined ? [] : [[name, value]];
      }),
    ),
  );
  const change = (field: string, value: FieldValue) => address.setAll(familyChange(field, value));
  return { asked, change };
}
