import { arrangedRows, AS_STORED, type Arrangement } from '@verdict/core/table';
import { computed, ref, shallowRef, watch } from 'vue';
import { useAddress } from '../../../workbench/run/use-address.js';
import { useStudy } from '../../../stores/study.js';

const isArrangement = (value: unknown): value is Arrangement =>
  typeof value === 'object' &&
  value !== null &&
  Array.isArray((value as Arrangement).sort) &&
  Array.isArray((value as Arrangement).only);

function fromAddress(text: unknown): Arrangement {
  try {
    const value: unknown = JSON.parse(String(text));
    return isArrangement(value) ? value : AS_STORED;
  } catch {
    return AS_STORED;
  }
}

/**
 * How the table is looked at, kept in the address. The rows are put in order when the arrangement changes or rows come and go, not with
 * every edit: a row must not run away from under the cursor.
 */
export function useArrangement() {
  const store = useStudy();
  const address = useAddress();
  const arrangement = ref<Arrangement>(fromAddress(address.textOf('arranged')));
  const again = ref(0);
  const rows = shallowRef<Int32Array | null>(null);
  const arranged = computed(() => arrangement.value.sort.length + arrangement.value.only.length > 0);

  watch(
    [arrangement, () => store.study?.rowCount, () => store.study?.columns.length, again],
    () => (rows.value = store.table ? arrangedRows(store.table, arrangement.value) : null),
    { immediate: true },
  );
  watch(arrangement, (value) => {
    void address.change({ arranged: arranged.value ? JSON.stringify(value) : undefined });
  });

  return {
    arrangement,
    rows,
    arranged,
    arrangeAgain: () => again.value++,
    asStored: () => (arrangement.value = AS_STORED),
  };
}
