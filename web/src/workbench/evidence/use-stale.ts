import { watch } from 'vue';
import { useEvidence } from '../../stores/evidence.js';
import { useStudy } from '../../stores/study.js';

/** Keeps the list of evidence whose readings have changed up to date after every change and every kept piece. */
export function useStale(): void {
  const store = useStudy();
  const evidence = useEvidence();
  watch(
    [() => store.study?.id, () => store.study?.revision, () => store.waiting.length, () => evidence.items.length],
    ([id, revision, waiting]) => {
      if (id !== undefined && revision !== undefined && waiting === 0) void evidence.lookStale(id, revision);
    },
    { immediate: true },
  );
}
