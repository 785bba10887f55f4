import { twoSamplesAnalysis } from '@verdict/core/analyses';
import { computed } from 'vue';
import { useStudy } from '../../../stores/study.js';
import { useAddress } from '../../../workbench/use-address.js';
import { useParts } from '../../../workbench/use-parts.js';
import { useRun } from '../../../workbench/use-run.js';
import { useStage } from '../../../workbench/use-stage.js';

/** A label with more levels than these hardly names groups. */
const MOST_LEVELS = 24;

/** Two groups of the split subject, or the subject and a column beside it, against each other. */
export function useTwo() {
  const store = useStudy();
  const column = computed(() => store.subject);
  const parts = useParts();
  parts.resume();
  const address = useAddress();
  const sample = computed(() =>
    column.value && parts.parts.value ? store.sampleInParts(column.value.id, parts.parts.value) : null,
  );
  const names = computed(() =>
    (sample.value?.groups?.samples ?? []).filter(({ values }) => values.length > 0).map(({ name }) => name),
  );
  /** What the address names, where there is such a part: another split has others. */
  const named = (which: 'first' | 'second') => {
    const text = address.textOf(which);
    return text !== undefined && names.value.includes(text) ? { [which]: text } : {};
  };
  /** Labels that name groups, and not every row. */
  const groupings = computed(() =>
    parts.labels.value.filter(({ id }) => {
      const levels = new Set(store.cells[id]);
      return levels.size >= 2 && levels.size <= MOST_LEVELS;
    }),
  );
  const run = useRun(twoSamplesAnalysis, sample, {
    name: 'two',
    fixed: () => {
      if (!column.value || !parts.parts.value) return null;
      const chosen = { ...named('first'), ...named('second') };
      const same = chosen.first !== undefined && chosen.first === chosen.second;
      return {
        column: column.value.name,
        alpha: store.study!.alpha,
        ...parts.asked.value,
        ...(same ? { first: chosen.first } : chosen),
      };
    },
  });
  const about = () =>
    column.value && sample.value ? { column: column.value.id, parts: parts.parts.value, sample: sample.value } : null;
  const stage = useStage({ runs: () => [run], about });
  /** One of the two is another part: chosen twice, they change places. */
  function choose(which: 'first' | 'second', name: string): void {
    const other = which === 'first' ? 'second' : 'first';
    const { [which]: own, [other]: others } = run.request.value ?? {};
    void address.change({ [which]: name, ...(name === others ? { [other]: own } : {}) });
  }
  return { column, parts, groupings, names, run, stage, choose };
}
