import type { StudySummary } from '@verdict/contract';
import { computed, ref, watch, type Ref } from 'vue';
import { useAddress } from '../../workbench/run/use-address.js';
import { foundStudies, haystacksOf, SORTS, tagsOf, type SortBy, type Wanted } from './found-studies.js';

/** The number of rows shown at first, more than a window holds; the list grows as it is scrolled. */
const ROWS = 12;
const MORE = 40;

/** The list as it is searched, narrowed to a tag and sorted; how stands in the address. */
export function useFound(studies: Ref<readonly StudySummary[] | null>) {
  const address = useAddress();
  // What is typed counts at once; the address follows.
  const text = ref(address.textOf('search') ?? '');
  let written = text.value;
  watch(
    () => address.textOf('search') ?? '',
    (now) => {
      if (now !== written) text.value = now;
      written = now;
    },
  );
  const wanted = computed<Wanted>(() => ({
    text: text.value,
    tag: address.textOf('tag') ?? null,
    by: SORTS.find((by) => by === address.textOf('sort')) ?? 'changed',
    turned: address.textOf('turned') === 'yes',
  }));
  const haystacks = computed(() => haystacksOf(studies.value ?? []));
  const all = computed(() => foundStudies(studies.value ?? [], () => haystacks.value, wanted.value));
  const rows = ref(ROWS);
  watch(wanted, () => (rows.value = ROWS));
  const shown = computed(() => all.value.slice(0, rows.value));
  const left = computed(() => all.value.length - shown.value.length);
  const tags = computed(() => tagsOf(studies.value ?? []));

  function search(typed: string): void {
    text.value = written = typed;
    void address.change({ search: typed === '' ? undefined : typed });
  }
  const chooseTag = (tag: string | null) => void address.change({ tag: tag ?? undefined });
  /** Once more by the same turns it round. */
  function sortBy(by: SortBy): void {
    const again = by === wanted.value.by && !wanted.value.turned;
    void address.change({ sort: by === 'changed' ? undefined : by, turned: again ? 'yes' : undefined });
  }
  const more = () => (rows.value += MORE);
  return { wanted, all, shown, left, tags, search, chooseTag, sortBy, more };
}
export type Found = ReturnType<typeof useFound>;
