import { advance } from '@verdict/core/analyses';
import { NO_READINGS, type Sample } from '@verdict/core/readings';
import { isUnavailable, type Analysis, type Settings, type Unavailable } from '@verdict/core/road';
import { computed, ref, type Ref } from 'vue';
import type { Shown } from './use-run.js';
import type { AnyRun } from './any-run.js';

const NOTHING = () => undefined;

/** An analysis that runs in the page and not in a worker: it takes less than a frame, needs no simulation, and must follow a drag at once. */
export function useAnswer<Request extends Settings, Result extends Shown>(
  analysis: Analysis<Request, Result>,
  asked: Ref<Request | null>,
  sample: Ref<Sample | null>,
) {
  const of = computed(() => sample.value ?? NO_READINGS);
  const request = computed(() => asked.value && analysis.resolve(asked.value, of.value));
  const found = computed(() => {
    if (!request.value) return null;
    const stage = advance(analysis.id, request.value, of.value, []);
    if (!stage.done) throw new Error('The answer is not available immediately.');
    return stage.result as Result | Unavailable;
  });
  const result = computed(() => (found.value && !isUnavailable(found.value) ? found.value : null));
  const run = {
    analysis,
    request,
    result,
    whyNot: computed(() => (found.value && isUnavailable(found.value) ? found.value.reason : null)),
    notes: computed(() => result.value?.notes ?? []),
    progress: ref(null),
    stopped: ref(false),
    failed: ref(null),
    whole: computed(() => result.value !== null),
    milliseconds: ref(0),
    simulated: ref(false),
    stop: NOTHING,
    again: NOTHING,
  };
  return run satisfies AnyRun;
}
