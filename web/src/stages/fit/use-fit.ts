import {
  missedSentence,
  normalityAnalysis,
  probabilityPlotAnalysis,
  type DescribeResult,
  type NormalityResult,
  type ProbabilityPlotResult,
} from '@verdict/core/analyses';
import { isUnavailable, type Unavailable } from '@verdict/core/road';
import { computed, toRef } from 'vue';
import { askedOf } from '../../composables/asked.js';
import { useAnalysis } from '../../composables/use-analysis.js';
import { useSettings } from '../../composables/use-settings.js';
import { useStudy } from '../../stores/study.js';
import { lanes } from '../../workers/analysis-pool.js';

function available<T extends { available: true }>(result: T | Unavailable | null): T | null {
  return result?.available ? result : null;
}

/** The runs behind the Fit stage: plot, test and figures of the subject, with the requests the address and the study make. */
export function useFit() {
  const store = useStudy();
  const sample = toRef(store, 'sample');
  const column = computed(() => store.subject);

  const plotAddress = useSettings('plot', probabilityPlotAnalysis.method);
  const testAddress = useSettings('test', normalityAnalysis.method);

  const plotAsked = computed(() =>
    sample.value && column.value
      ? askedOf(probabilityPlotAnalysis, { column: column.value.name }, plotAddress.settings.value)
      : null,
  );
  const testAsked = computed(() =>
    sample.value && column.value
      ? askedOf(normalityAnalysis, { column: column.value.name, alpha: store.study!.alpha }, testAddress.settings.value)
      : null,
  );
  /** The requests in full: what the address says, the study's level, and the defaults of the methods. */
  const plotRequest = computed(() =>
    plotAsked.value ? probabilityPlotAnalysis.resolve(plotAsked.value.request, sample.value!) : null,
  );
  const testRequest = computed(() =>
    testAsked.value ? normalityAnalysis.resolve(testAsked.value.request, sample.value!) : null,
  );
  const describeRequest = computed(() => (column.value ? { column: column.value.name } : null));

  const plot = useAnalysis<ProbabilityPlotResult | Unavailable>('probability-plot', plotRequest, sample);
  const test = useAnalysis<NormalityResult | Unavailable>('normality', testRequest, sample);
  const described = useAnalysis<DescribeResult | Unavailable>('describe', describeRequest, sample);

  const plotResult = computed(() => available<ProbabilityPlotResult>(plot.result.value));
  const testResult = computed(() => available<NormalityResult>(test.result.value));
  const figures = computed(() => available<DescribeResult>(described.result.value));
  const whyNot = computed(() => {
    const found = plot.result.value;
    return found && isUnavailable(found) ? found.reason : null;
  });

  const finding = computed(() => (testResult.value ? normalityAnalysis.finding(testResult.value) : []));
  const missed = computed(() => (testResult.value ? missedSentence(testResult.value) : null));
  const notes = computed(() => {
    const all = [...(testResult.value?.notes ?? []), ...(plotResult.value?.notes ?? [])];
    const left = [plotAsked.value, testAsked.value].flatMap((asked) => asked?.left ?? []);
    return [...left, ...all.filter((note, i) => all.findIndex(({ code }) => code === note.code) === i)];
  });

  const running = computed(() => {
    const shares = [plot.progress.value, test.progress.value].filter((share) => share !== null);
    return shares.length ? Math.min(...shares) : null;
  });
  const anyStopped = computed(() => plot.stopped.value || test.stopped.value);
  const failed = computed(() => plot.failed.value ?? test.failed.value);
  function stop(): void {
    plot.stop();
    test.stop();
  }
  function again(): void {
    for (const one of [plot, test]) if (one.stopped.value || one.failed.value) one.again();
  }
  const seconds = computed(() => {
    const longest = Math.max(plot.milliseconds.value, test.milliseconds.value);
    const time = longest < 1000 ? `${Math.round(longest)} ms` : `${(longest / 1000).toFixed(1)} s`;
    return `${time} · ${lanes} ${lanes === 1 ? 'worker' : 'workers'}`;
  });

  /** What the key K keeps. */
  const shown = computed(() => [
    {
      analysis: probabilityPlotAnalysis,
      request: plotRequest.value,
      result: plotResult.value,
      whole: plot.whole.value,
    },
    {
      analysis: normalityAnalysis,
      request: testRequest.value,
      result: testResult.value,
      whole: test.whole.value,
    },
  ]);

  return {
    ...{ column, sample, plotAddress, testAddress, plotRequest, testRequest, plotResult, testResult, figures, shown },
    ...{ whyNot, finding, missed, notes, running, anyStopped, failed, stop, again, seconds },
  };
}
