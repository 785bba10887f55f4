import { describeAnalysis, missedSentence, normalityAnalysis, probabilityPlotAnalysis } from '@verdict/core/analyses';
import { computed, toRef } from 'vue';
import { useStudy } from '../../stores/study.js';
import { askDistribution } from '../../workbench/ask-distribution.js';
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
  const stage = useStage({ runs: () => [plot, test] });

  const finding = computed(() => (test.result.value ? normalityAnalysis.finding(test.result.value) : []));
  const missed = computed(() => (test.result.value ? missedSentence(test.result.value) : null));

  /** The fitted family on the page of distributions. */
  const askThis = computed(() => {
    const { value: of } = column;
    const { value: fitted } = plot.result;
    return of && fitted ? { name: 'study-distributions', query: askDistribution({ column: of, ...fitted }) } : null;
  });

  return { column, sample, plot, test, described, stage, finding, missed, askThis };
}
