import { describeAnalysis, missedSentence, normalityAnalysis, probabilityPlotAnalysis } from '@verdict/core/analyses';
import { computed, toRef } from 'vue';
import { useStudy } from '../../stores/study.js';
import { useRun } from '../../workbench/use-run.js';
import { useStage } from '../../workbench/use-stage.js';

/** What Fit runs: plot, test and figures of the subject. */
export function useFit() {
  const store = useStudy();
  const sample = toRef(store, 'sample');
  const column = computed(() => store.subject);
  const ofColumn = () => (column.value ? { column: column.value.name } : null);
  const atLevel = () => (column.value ? { column: column.value.name, alpha: store.study!.alpha } : null);

  const plot = useRun(probabilityPlotAnalysis, sample, { name: 'plot', fixed: ofColumn });
  const test = useRun(normalityAnalysis, sample, { name: 'test', fixed: atLevel });
  const described = useRun(describeAnalysis, sample, { fixed: ofColumn, settled: () => ({}) });
  const stage = useStage({ runs: () => [plot, test], kept: () => [plot, test] });

  const finding = computed(() => (test.result.value ? normalityAnalysis.finding(test.result.value) : []));
  const missed = computed(() => (test.result.value ? missedSentence(test.result.value) : null));

  /** Asked about first on the page of distributions: the specification limits, else one sd on either side. */
  const limits = computed(() => {
    const { lowerLimit = null, upperLimit = null } = column.value ?? {};
    const { mean = 0, sd = 1 } = plot.result.value ?? {};
    if (lowerLimit !== null && upperLimit !== null) return { a: lowerLimit, b: upperLimit };
    return { a: Number((mean - sd).toPrecision(4)), b: Number((mean + sd).toPrecision(4)) };
  });
  /** The fitted family there, its parameters in full and the readings under its curve. */
  const askThis = computed(() => ({
    name: 'study-distributions',
    query: {
      family: 'normal',
      ask: 'between',
      column: column.value?.id,
      'p.mean': plot.result.value?.mean,
      'p.sd': plot.result.value?.sd,
      ...limits.value,
    },
  }));

  return { column, sample, plot, test, described, stage, finding, missed, askThis };
}
