import { computed } from 'vue';
import { useStudy } from '../../stores/study.js';
import { useParts } from '../../workbench/parts/use-parts.js';

/** The subject as a whole, for questions that are about one column: how it is split elsewhere is said, and stays. */
export function useWhole() {
  const store = useStudy();
  const { split, beside } = useParts();
  const column = computed(() => store.subject);
  const sample = computed(() => store.sample);
  const name = computed(() => column.value?.name ?? '');
  const atLevel = () => (column.value ? { column: column.value.name, alpha: store.study!.alpha } : null);
  const cautions = computed(() => {
    if (split.value) return [`This analysis uses ${name.value} as a whole, not by ${split.value.name}.`];
    return beside.value.length > 0 ? [`This analysis uses ${name.value} alone, not the other columns.`] : [];
  });
  return { column, sample, name, atLevel, cautions };
}
