import {
  distributionAnalysis,
  distributionPicture,
  type DistributionPicture,
  type DistributionResult,
} from '@verdict/core/analyses';
import { distributionName } from '@verdict/core/distributions';
import { formatValue } from '@verdict/core/format';
import type { Sample } from '@verdict/core/readings';
import { computed, shallowRef, watch, type Ref } from 'vue';
import { useAnswer } from '../../workbench/run/use-answer.js';
import { dragged } from './dragging.js';
import { overRequestFrom, requestFrom, type Draft, type Faults } from './question.js';
import { typedNumber } from '../../components/fields/typed-number.js';

/** The last answer that could be drawn. */
interface Drawn {
  picture: DistributionPicture;
  result: DistributionResult;
  over: DistributionResult | null;
}

/** The answer and the picture of the question as it stands. */
export function useDistribution(draft: Ref<Draft>, sample: Ref<Sample | null>) {
  const asked = computed(() => requestFrom(draft.value, sample.value?.name));
  const overAsked = computed(() => overRequestFrom(draft.value));
  const requestOf = (found: ReturnType<typeof overRequestFrom>) => (found && 'request' in found ? found.request : null);
  const faults = computed<Faults>(() => ({
    ...('faults' in asked.value ? asked.value.faults : {}),
    ...(overAsked.value && 'faults' in overAsked.value ? overAsked.value.faults : {}),
  }));

  const run = useAnswer(
    distributionAnalysis,
    computed(() => requestOf(asked.value)),
    sample,
  );
  const { result: over } = useAnswer(
    distributionAnalysis,
    computed(() => requestOf(overAsked.value)),
    shallowRef(null),
  );
  const { result, whyNot } = run;

  /** It stays, dimmed, while a field is being mended. */
  const drawn = shallowRef<Drawn | null>(null);
  watch(
    [result, over, sample, () => draft.value.view, () => draft.value.from, () => draft.value.to],
    ([now]) => {
      if (!now) return;
      const { view, from, to } = draft.value;
      const chosen = { view, from: typedNumber(from), to: typedNumber(to) };
      const picture = distributionPicture(chosen, now, over.value, sample.value);
      drawn.value = { picture, result: now, over: over.value };
    },
    { immediate: true, flush: 'sync' },
  );

  /** What dragging a limit writes into the sentence. */
  const drag = (side: 'lower' | 'upper', x: number): Partial<Draft> =>
    drawn.value ? dragged(draft.value, drawn.value.result, drawn.value.picture.window, side, x) : {};

  const title = computed(() => {
    if (!drawn.value) return '';
    const { family, parameters, discrete } = drawn.value.result;
    const kind = draft.value.view === 'cumulative' ? 'Cumulative distribution' : discrete ? 'Probabilities' : 'Density';
    return `${kind} of ${distributionName(family, parameters)}`;
  });
  const words = computed(() => {
    if (!drawn.value) return '';
    const { picture, result: of } = drawn.value;
    const limits = [of.lower, of.upper].filter((x) => x !== null).map(formatValue);
    return `${title.value}; shaded ${of.outside ? 'outside' : 'at'} ${limits.join(' and ')}: ${picture.answer.words}.`;
  });

  return { run, request: run.request, faults, result, over, whyNot, drawn, drag, title, words };
}
