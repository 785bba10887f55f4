import { isField, type Field, type SentencePart } from '@verdict/core';
import { computed, type Ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';

function parse(field: Field, text: string): string | number | undefined {
  if (field.type === 'choice') return field.options.some(({ value }) => value === text) ? text : undefined;
  const value = Number(text);
  const whole = field.type !== 'whole' || Number.isInteger(value);
  return text !== '' && whole && value >= field.min && value <= field.max ? value : undefined;
}

/**
 * The settings of an analysis that stand in the address, under `prefix.field`: the page can be bookmarked, shared, reloaded and gone
 * back to. A value the field would refuse is passed over.
 */
export function useSettings(prefix: string, method: readonly SentencePart[]) {
  const route = useRoute();
  const router = useRouter();
  const fields = method.filter(isField);

  const settings: Ref<Record<string, string | number>> = computed((before?: Record<string, string | number>) => {
    const found: Record<string, string | number> = {};
    for (const field of fields) {
      const text = route.query[`${prefix}.${field.field}`];
      const value = typeof text === 'string' ? parse(field, text) : undefined;
      if (value !== undefined) found[field.field] = value;
    }
    // The same settings stay the same object: another part of the address must not start this analysis again.
    return before && JSON.stringify(before) === JSON.stringify(found) ? before : found;
  });

  function set(field: string, value: string | number): void {
    void router.replace({ query: { ...route.query, [`${prefix}.${field}`]: String(value) } });
  }

  return { settings, set };
}
