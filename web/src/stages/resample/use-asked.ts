import {
  COUNT_FIELDS,
  readCounts,
  statisticOffers,
  usualStatistic,
  type LookedAt,
  type Resampling,
  type StatisticId,
} from '@verdict/core/analyses';
import { NO_READINGS } from '@verdict/core/readings';
import { computed } from 'vue';
import { useStudy } from '../../stores/study.js';
import { useAddress } from '../../workbench/run/use-address.js';
import { useFresh } from '../../workbench/frame/use-fresh.js';
import { useLooked } from '../../workbench/frame/use-looked.js';
import { useParts } from '../../workbench/parts/use-parts.js';
import { useTwoGroups } from '../../workbench/parts/use-two-groups.js';

/** Settings of one column are not used for another. */
const OF_ONE_COLUMN = /^(shuffle|redraw|plans)\.(claimed|lower|upper|formula)$|^(level|first|second|replicate)$/;

/** Counts that are typed in place of readings, as texts in the address. */
function useCounts() {
  const address = useAddress();
  const texts = computed(() =>
    Object.fromEntries(COUNT_FIELDS.map(({ key }) => [key, address.textOf(`typed.${key}`) ?? ''])),
  );
  const set = (key: string, text: string) => void address.change({ [`typed.${key}`]: text.trim() || undefined });
  const read = computed(() => readCounts(texts.value));
  const figures = computed(() => ('figures' in read.value ? read.value.figures : null));
  const fault = computed(() => ('problem' in read.value ? read.value : { field: '', problem: '' }));
  return { fields: COUNT_FIELDS, texts, set, figures, fault };
}

/** What is resampled, as the bar and the address name it, and which statistic is looked at. */
export function useAsked(what: Resampling) {
  const store = useStudy();
  const address = useAddress();
  const { column } = useLooked();
  const parts = useParts();
  parts.resume();
  useFresh(() => column.value?.id, OF_ONE_COLUMN);
  const counts = useCounts();

  const typed = computed(() => address.textOf('typed') === 'yes' || column.value === null);
  const setTyped = (yes: boolean) => void address.change({ typed: yes ? 'yes' : undefined, look: undefined });
  const sample = computed(() => {
    if (typed.value) return NO_READINGS;
    return column.value ? store.sampleInParts(column.value.id, parts.parts.value) : null;
  });
  const names = computed(() =>
    (sample.value?.groups?.samples ?? []).filter(({ values }) => values.length > 0).map(({ name }) => name),
  );
  const looked = computed<LookedAt>(() => {
    if (typed.value || !column.value)
      return { kind: null, name: '', groups: counts.figures.value?.length ?? 1, split: false, limits: false };
    const { kind, name, lowerLimit, upperLimit } = column.value;
    const limits = lowerLimit !== null || upperLimit !== null;
    return { kind, name, groups: Math.max(1, names.value.length), split: parts.split.value !== null, limits };
  });
  const offers = computed(() => statisticOffers(what, looked.value));
  const statistic = computed<StatisticId>(() => {
    const asked = offers.value.find(({ id }) => id === address.textOf('look'));
    return asked && asked.whyNot === null ? asked.id : usualStatistic(what, looked.value);
  });
  const setStatistic = (id: StatisticId) => void address.change({ look: id, replicate: undefined });
  const options = computed(() =>
    offers.value.map(({ id: value, word: text, group, whyNot }) => ({ value, text, group, whyNot })),
  );

  const two = useTwoGroups(() => names.value);
  /** A statistic of two out of more groups: which two. */
  const isTwo = computed(
    () => !typed.value && names.value.length > 1 && statistic.value !== 'f' && statistic.value !== 'largest-difference',
  );
  const levels = computed(() => (typed.value ? [] : (sample.value?.levels ?? [])));
  const level = computed(() => levels.value.find((name) => name === address.textOf('level')) ?? levels.value[0] ?? '');
  const setLevel = (name: string) => void address.change({ level: name });

  /** What is asked whatever the sentence says; null where there is nothing to ask of. */
  function fixed(): object | null {
    const { alpha, quantileType } = store.study!;
    const always = { alpha, statistic: statistic.value };
    if (typed.value) return counts.figures.value && { ...always, figures: counts.figures.value };
    if (!column.value) return null;
    const { name, claimedMean, target, lowerLimit, upperLimit } = column.value;
    const centre = claimedMean ?? target;
    const signs = what === 'permutation' && (statistic.value === 'mean' || statistic.value === 'median');
    const share = statistic.value.endsWith('share') || statistic.value.endsWith('shares');
    return {
      ...{ ...always, column: name, quantileType },
      ...parts.asked.value,
      ...(isTwo.value ? two.asked() : {}),
      ...(signs && centre !== null ? { claimed: centre } : {}),
      ...(share && lowerLimit !== null ? { lower: lowerLimit } : {}),
      ...(share && upperLimit !== null ? { upper: upperLimit } : {}),
      ...(share && levels.value.length > 0 ? { level: level.value } : {}),
    };
  }
  const about = () => {
    if (typed.value) return counts.figures.value ? { column: null, sample: NO_READINGS } : null;
    return column.value && sample.value
      ? { column: column.value.id, parts: parts.parts.value, sample: sample.value }
      : null;
  };
  return {
    ...{ column, typed, setTyped, counts, sample, names, looked },
    ...{ statistic, setStatistic, options, two, isTwo, levels, level, setLevel, fixed, about },
  };
}

export type Asked = ReturnType<typeof useAsked>;
