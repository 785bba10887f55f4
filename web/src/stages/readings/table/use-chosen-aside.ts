import { groupThousands } from '@verdict/core/format';
import { computed, ref } from 'vue';
import { useStudy } from '../../../stores/study.js';
import type { useTableActions } from './use-table-actions.js';

/** Setting the chosen readings aside: what they are in words, and the question for a reason. */
export function useChosenAside(actions: ReturnType<typeof useTableActions>) {
  const store = useStudy();
  const asking = ref(false);
  const readings = computed(() => actions.readingsIn(false));

  /** "row 7", "3 rows", "12 readings"; empty where nothing that counts is chosen. */
  const words = computed(() => {
    const [only] = readings.value;
    if (!only) return '';
    const whole = actions.wholeRows.value;
    if (whole.length) return whole.length === 1 ? `row ${whole[0]}` : `${groupThousands(whole.length)} rows`;
    return readings.value.length === 1 ? `row ${only.row}` : `${groupThousands(readings.value.length)} readings`;
  });
  /** The columns whose readings would be set aside. */
  const names = computed(() => {
    const ids = new Set(readings.value.map(({ column }) => column));
    return actions
      .columnsIn(actions.range.value)
      .flatMap(({ id, name }) => (ids.has(id) ? [name] : []))
      .join(', ');
  });
  const question = computed(() => {
    const [only] = readings.value;
    if (readings.value.length !== 1 || !only) return `${words.value} of ${names.value}`;
    return `Row ${only.row} of ${store.columnById(only.column)?.name}, ${store.textsOf(only.column)[only.row - 1]}`;
  });
  const many = computed(() => readings.value.length > 1);
  const ask = () => (asking.value = !store.ruled && readings.value.length > 0);
  function setAside(reason: string): void {
    actions.setAside(reason);
    asking.value = false;
  }
  return { words, question, many, asking, ask, setAside };
}
