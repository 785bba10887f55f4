import { populationAnalysis } from '@verdict/core/analyses';
import { NO_READINGS } from '@verdict/core/readings';
import { computed } from 'vue';
import { useStudy } from '../../stores/study.js';
import { useAddress } from '../../workbench/run/use-address.js';
import { useRun } from '../../workbench/run/use-run.js';

/** What samples are drawn from: said once for every question of the stage. Labels are not drawn from. */
export function usePopulation() {
  const store = useStudy();
  const address = useAddress();
  const column = computed(() => store.subject);
  /** The readings where there are any and nothing else is said. */
  const from = computed(() => {
    const said = address.textOf('population.from');
    if (!column.value || said === 'family') return 'family';
    return said === 'fit' ? 'fit' : 'column';
  });
  const ofColumn = computed(() => from.value !== 'family');
  const sample = computed(() =>
    !ofColumn.value ? NO_READINGS : column.value ? store.sampleInParts(column.value.id, null) : null,
  );
  const fixed = () => {
    if (!ofColumn.value) return { from: 'family' };
    return column.value && { from: from.value, column: column.value.name };
  };
  const run = useRun(populationAnalysis, sample, { name: 'population', fixed, elsewhere: ['from'] });
  /** The limits on the card of the column, where readings are counted. */
  const limits = computed(() => {
    if (!ofColumn.value || !column.value) return {};
    const { lowerLimit, upperLimit } = column.value;
    return {
      ...(lowerLimit === null ? {} : { lower: lowerLimit }),
      ...(upperLimit === null ? {} : { upper: upperLimit }),
    };
  });
  const setFrom = (where: string) =>
    void address.change({
      'population.from': where === 'column' ? undefined : where,
      sample: undefined,
    });
  const about = () => {
    if (!ofColumn.value) return { column: null, sample: NO_READINGS };
    return column.value && sample.value ? { column: column.value.id, sample: sample.value } : null;
  };
  const subject = computed(() => column.value?.name ?? 'a column');
  return { column, from, setFrom, sample, run, limits, about, subject };
}

export type Populated = ReturnType<typeof usePopulation>;
