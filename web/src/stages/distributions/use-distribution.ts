import {
  advance,
  distributionAnalysis,
  distributionName,
  histogram as histogramOf,
  type DistributionRequest,
  type DistributionResult,
} from '@verdict/core/analyses';
import { distribution, familyByName } from '@verdict/core/distributions';
import { formatValue } from '@verdict/core/format';
import { NO_READINGS, type Sample } from '@verdict/core/readings';
import { isUnavailable, type Unavailable } from '@verdict/core/road';
import { computed, shallowRef, watch, type ComputedRef, type Ref } from 'vue';
import { pictureOf } from '../../charts/distribution-picture.js';
import { snapped } from '../../charts/snapped.js';
import { shareAt } from './dragging.js';
import { overRequestFrom, requestFrom, typedNumber, type Draft, type Faults } from './question.js';

type Found = DistributionResult | Unavailable;

/** Worked out here and not in a worker: it takes less than a frame, and a drag has to follow at once. */
function answer(request: DistributionRequest, sample: Sample): Found {
  const settled = distributionAnalysis.resolve(request, sample);
  const stage = advance('distribution', settled, sample, []);
  if (!stage.done) throw new Error('The answer did not come at once.');
  return stage.result as Found;
}

/** The answer, the picture and the words for the question as it stands. */
export function useDistribution(draft: Ref<Draft>, sample: ComputedRef<Sample | null>) {
  const asked = computed(() => requestFrom(draft.value, sample.value?.name));
  const request = computed(() =>
    'request' in asked.value ? distributionAnalysis.resolve(asked.value.request, sample.value ?? NO_READINGS) : null,
  );
  const overAsked = computed(() => overRequestFrom(draft.value));
  const faults = computed<Faults>(() => ({
    ...('faults' in asked.value ? asked.value.faults : {}),
    ...(overAsked.value && 'faults' in overAsked.value ? overAsked.value.faults : {}),
  }));

  const found = computed(() => (request.value ? answer(request.value, sample.value ?? NO_READINGS) : null));
  const overFound = computed(() =>
    overAsked.value && 'request' in overAsked.value ? answer(overAsked.value.request, NO_READINGS) : null,
  );
  const result = computed(() => (found.value && !isUnavailable(found.value) ? found.value : null));
  const over = computed(() => (overFound.value && !isUnavailable(overFound.value) ? overFound.value : null));
  const whyNot = computed(() => (found.value && isUnavailable(found.value) ? found.value.reason : ''));

  const histogram = computed(() => {
    const { value: readings } = sample;
    if (!readings || readings.values.length === 0) return null;
    const { discrete } = familyByName(draft.value.family);
    if (discrete) return histogramOf(readings.values, 1, { rule: 'width', width: 1 });
    return histogramOf(readings.values, readings.resolution, { rule: 'freedman-diaconis' });
  });
  /** The last picture that could be drawn: it stays, dimmed, while a field is being mended. */
  const picture = shallowRef<ReturnType<typeof pictureOf> | null>(null);
  const drawn = shallowRef<DistributionResult | null>(null);
  watch(
    [result, over, histogram, () => draft.value.view, () => draft.value.from, () => draft.value.to],
    ([now]) => {
      if (!now) return;
      const { view, from, to } = draft.value;
      picture.value = pictureOf(
        { view, from: typedNumber(from), to: typedNumber(to) },
        now,
        over.value,
        histogram.value,
      );
      drawn.value = now;
    },
    { immediate: true, flush: 'sync' },
  );

  /** What dragging a limit writes into the sentence. */
  function dragged(side: 'lower' | 'upper', x: number): Partial<Draft> {
    const { value: now } = drawn;
    if (!now || !picture.value) return {};
    const { asked: question } = draft.value;
    const place = (step: number | null) => snapped(x, picture.value!.window, now.discrete ? 1 : step);
    if (question === 'recordedAs') {
      const step = now.resolution ?? 1;
      const half = side === 'lower' ? step / 2 : -step / 2;
      return { value: snapped(x + half, picture.value.window, step) };
    }
    if (question === 'withinSd') {
      const reach = Math.abs(x - now.mean.value!) / now.sd.value!;
      return { times: String(Number(Math.max(0.01, reach).toPrecision(3))) };
    }
    if (question === 'lowerShare' || question === 'upperShare' || question === 'centralShare') {
      return { share: shareAt(distribution(familyByName(now.family), now.parameters), x, question) };
    }
    const text = place(null);
    const two = question === 'between' || question === 'outside';
    // A limit does not pass the other one.
    if (two && side === 'lower' && typedNumber(text) >= typedNumber(draft.value.b)) return {};
    if (two && side === 'upper' && typedNumber(text) <= typedNumber(draft.value.a)) return {};
    return side === 'lower' ? { a: text } : { b: text };
  }

  const title = computed(() => {
    if (!drawn.value) return '';
    const kind =
      draft.value.view === 'cumulative' ? 'Cumulative curve' : drawn.value.discrete ? 'Probabilities' : 'Density';
    return `${kind} of ${distributionName(drawn.value.family, drawn.value.parameters)}`;
  });
  const words = computed(() => {
    if (!drawn.value || !picture.value) return '';
    const { lower, upper, outside } = drawn.value;
    const limits = [lower, upper]
      .filter((x) => x !== null)
      .map(formatValue)
      .join(' and ');
    return `${title.value}; shaded ${outside ? 'outside' : 'at'} ${limits}: ${picture.value.answer}.`;
  });

  return { request, faults, found, result, over, whyNot, picture, drawn, dragged, title, words };
}
