import {
  oneSampleAnalysis,
  simulateAnalysis,
  thingsToLookAt,
  type Look,
  POPULATION_FIELDS,
} from '@verdict/core/analyses';
import { computed } from 'vue';
import { useStudy } from '../../stores/study.js';
import { unchanged } from '../../workbench/run/unchanged.js';
import { useAddress } from '../../workbench/run/use-address.js';
import { useRun } from '../../workbench/run/use-run.js';
import type { Populated } from './use-population.js';

/** Fields that stand with the population, or in the list of what can be looked at. */
const ELSEWHERE = [...POPULATION_FIELDS, 'statistic', 'test', 'interval'];

/** Few enough that the latest is looked at while they come one by one. */
const MOST_ONE_BY_ONE = 200;

/** The statistic of the samples, and the samples; one of them drawn again on request. */
export function useSamples(populated: Populated) {
  const store = useStudy();
  const address = useAddress();
  const look = computed<Look>(() => {
    const said = address.textOf('look');
    return thingsToLookAt.find(({ setting, id }) => `${setting}:${id}` === said) ?? thingsToLookAt[0]!;
  });
  const setLook = (said: string) => void address.change({ look: said, sample: undefined });
  const fixed = () => {
    const population = populated.run.request.value;
    if (!population) return null;
    const { alpha, quantileType } = store.study!;
    return {
      ...population,
      ...populated.limits.value,
      ...{ alpha, quantileType: quantileType === 'hinges' ? 7 : quantileType, [look.value.setting]: look.value.id },
    };
  };
  const run = useRun(simulateAnalysis, populated.sample, { name: 'samples', fixed, elsewhere: ELSEWHERE });

  const count = computed(() => run.result.value?.replicates ?? 0);
  const number = computed({
    get: (): number | null => {
      const text = address.textOf('sample');
      if (text === 'none') return null;
      const asked = Number(text);
      if (text !== undefined && Number.isInteger(asked) && asked >= 1 && asked <= count.value) return asked;
      return count.value > 0 && count.value <= MOST_ONE_BY_ONE ? count.value : null;
    },
    set: (which) => void address.change({ sample: which === null ? 'none' : String(which) }),
  });
  /** While they come one by one the latest is looked at; of many none. */
  const lookAtLatest = () => void address.change({ sample: undefined });
  const one = unchanged(() => {
    const { value: request } = run.request;
    return request && number.value !== null ? { ...request, number: number.value } : null;
  });
  const sample = useRun(oneSampleAnalysis, populated.sample, { name: 'one', fixed: () => one.value });
  return { look, setLook, run, count, number, lookAtLatest, sample };
}
