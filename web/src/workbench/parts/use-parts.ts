import type { PartsBy, StudyColumn } from '@verdict/contract';
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import { useStudy } from '../../stores/study.js';
import { unchanged } from '../run/unchanged.js';
import { useAddress } from '../run/use-address.js';
import { useLooked } from '../frame/use-looked.js';

/** How each study was split last, while the page is open: leaving the stage and coming back asks nothing again. */
const lastOf = new Map<string, Record<string, string>>();

/** By what the subject is split, or which columns stand beside it: kept in the address, for every picture of the stage. */
export function useParts() {
  const store = useStudy();
  const route = useRoute();
  const address = useAddress();

  const { column: looked } = useLooked();
  const columns = computed(() => store.study?.columns ?? []);
  const labels = computed(() => columns.value.filter(({ kind, id }) => kind === 'label' && id !== looked.value?.id));
  /** Labels have none beside them. */
  const others = computed(() =>
    looked.value?.kind === 'label'
      ? []
      : columns.value.filter(({ kind, id }) => kind !== 'label' && id !== looked.value?.id),
  );
  const named = (ids: readonly string[], among: readonly StudyColumn[]) =>
    ids.flatMap((id) => among.find((column) => column.id === id) ?? []);

  const split = computed(() => named([String(route.query.split ?? '')], labels.value)[0] ?? null);
  const beside = computed(() =>
    split.value || typeof route.query.beside !== 'string' ? [] : named(route.query.beside.split(' '), others.value),
  );
  const parts = unchanged<PartsBy | null>(() =>
    split.value
      ? { split: split.value.id }
      : beside.value.length > 0
        ? { beside: beside.value.map(({ id }) => id) }
        : null,
  );
  /** The same as a request names them. */
  const asked = unchanged(() =>
    split.value
      ? { split: split.value.name }
      : beside.value.length > 0
        ? { beside: beside.value.map(({ name }) => name) }
        : {},
  );

  function set(query: Record<string, string>): void {
    lastOf.set(String(route.params.id), query);
    void address.change({ split: undefined, beside: undefined, ...query });
  }
  /** Splits as it was done last, unless the address says something itself. */
  function resume(): void {
    const last = lastOf.get(String(route.params.id));
    if (last && !('split' in route.query) && !('beside' in route.query)) set(last);
  }
  const splitBy = (id: string) => set(id ? { split: id } : {});
  const putBeside = (ids: readonly string[]) => set(ids.length ? { beside: ids.join(' ') } : {});

  return { labels, others, split, beside, parts, asked, splitBy, putBeside, resume };
}
