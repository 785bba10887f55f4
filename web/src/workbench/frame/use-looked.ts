import { computed } from 'vue';
import { useStudy } from '../../stores/study.js';
import { useAddress } from '../run/use-address.js';

/** The selected column: the subject of the study, or the label column in the address, if the stage accepts labels. */
export function useLooked() {
  const store = useStudy();
  const address = useAddress();
  const label = computed(() => {
    const id = address.textOf('label');
    return store.study?.columns.find((column) => column.id === id && column.kind === 'label') ?? null;
  });
  const column = computed(() => label.value ?? store.subject);
  const sample = computed(() => (column.value ? store.sampleInParts(column.value.id, null) : null));
  /** Looks at another column: labels stand in the address, numbers are the subject of the study. */
  function look(id: string): void {
    const chosen = store.study?.columns.find((one) => one.id === id);
    void address.change({ label: chosen?.kind === 'label' ? id : undefined });
    if (chosen && chosen.kind !== 'label' && id !== store.subject?.id && !store.ruled)
      store.change({ kind: 'change-study', subject: id });
  }
  return { label, column, sample, look };
}
