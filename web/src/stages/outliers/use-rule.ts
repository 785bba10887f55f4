import { FAR_PARTS, ruleFields } from '@verdict/core/analyses';
import { unchanged } from '../../workbench/run/unchanged.js';
import type { FieldValue } from '../../workbench/run/field-values.js';
import { useSettings } from '../../workbench/run/use-settings.js';

/** The words that stand for the rule of the study: asked once for all of Outliers. */
export const RULE_FIELDS: readonly string[] = ruleFields;

/** Side, rule, the most that may be named, and family, wherever in Outliers one asks. */
export function useRule() {
  const address = useSettings('outliers', FAR_PARTS);
  const asked = unchanged(() => ({ ...address.settings.value }));
  const change = (field: string, value: FieldValue) => address.setAll({ [field]: value });
  return { asked, change };
}
