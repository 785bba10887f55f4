import { isField, type SentencePart } from '@verdict/core/road';
import { ref, type Ref } from 'vue';
import { unchanged } from './unchanged.js';
import { useAddress } from './use-address.js';
import { asText, fromText, type FieldValue } from './field-values.js';

export type Settings = Record<string, Exclude<FieldValue, undefined>>;

/**
 * The settings of an analysis that stand in the address, under `prefix.field`: the page can be bookmarked, shared, reloaded and gone
 * back to. A value the field would refuse is passed over. `texts` names settings that are no fields of the sentence: titles.
 */
export function useSettings(prefix: string, method: readonly SentencePart[], texts: readonly string[] = []) {
  const address = useAddress();
  const fields = method.filter(isField);
  /** Temporary settings while something is dragged: not yet in the address. */
  const tried = ref<Record<string, FieldValue>>({});

  const settings: Ref<Settings> = unchanged(() => {
    const found: Settings = {};
    const textOf = (field: string) => address.textOf(`${prefix}.${field}`);
    for (const field of fields) {
      const text = textOf(field.field);
      const value = text === undefined ? undefined : fromText(field, text);
      if (value !== undefined) found[field.field] = value;
    }
    for (const field of texts) if (textOf(field)) found[field] = textOf(field)!;
    for (const [field, value] of Object.entries(tried.value)) {
      if (value === undefined) delete found[field];
      else found[field] = value;
    }
    return found;
  });

  /** Changes several settings; undefined removes one. Temporary settings are written with them. */
  function setAll(values: Record<string, FieldValue>): void {
    const written = { ...tried.value, ...values };
    const parts = Object.entries(written).map(([field, value]) => {
      const text = value === undefined || value === '' ? undefined : asText(value);
      return [`${prefix}.${field}`, text] as const;
    });
    void address.change(Object.fromEntries(parts)).then(() => {
      const since = Object.entries(tried.value).filter(([field, value]) => written[field] !== value);
      tried.value = Object.fromEntries(since);
    });
  }
  const set = (field: string, value: FieldValue) => setAll({ [field]: value });
  const tryOut = (values: Record<string, FieldValue>) => void (tried.value = { ...tried.value, ...values });

  return { settings, set, setAll, tryOut };
}
