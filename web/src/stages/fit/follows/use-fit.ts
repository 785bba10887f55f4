import {
  compareFamiliesAnalysis,
  describeAnalysis,
  goodnessOfFitAnalysis,
  missedSentence,
  normalityAnalysis,
  probabilityPlotAnalysis,
} from '@verdict/core/analyses';
import { isInParts, subjectWords, type InParts } from '@verdict/core/road';
import { computed, type ComputedRef } from 'vue';
import { useStudy } from '../../../stores/study.js';
import { askDistribution } from '../../../workbench/frame/ask-distribution.js';
import type { FieldValue } from '../../../workbench/run/field-values.js';
import { useParts } from '../../../workbench/parts/use-parts.js';
import { useRun } from '../../../workbench/run/use-run.js';
import { useStage } from '../../../workbench/frame/use-stage.js';
import { FAMILY_FIELDS, familyChange } from '../use-family.js';
import { useShown } from './use-shown.js';
import { limitsOf } from '../../../workbench/sentence/limits-of.js';

/** The analyses of Fit: the plot, the test for its family, and figures of the subject. */
export function useFit() {
  const store = useStudy();
  const column = computed(() => store.subject);
  const parts = useParts();
  parts.resume();
  /** Several series: the parts of a split column, or columns side by side. */
  const several = computed(() => parts.parts.value !== null);
  const sample = computed(() => (column.value ? store.sampleInParts(column.value.id, parts.parts.value) : null));
  const ofColumn = () => (column.value ? { column: column.value.name, ...parts.asked.value } : null);
  const atLevel = () => {
    const of = ofColumn();
    return of && { ...of, alpha: store.study!.alpha };
  };
  /** With the limits of the column, which the plot draws and tells the share outside of. */
  const withLimits = () => {
    const { value: of } = column;
    if (!of) return null;
    // Columns side by side have limits of their own.
    return { ...atLevel(), ...(parts.beside.value.length > 0 ? {} : limitsOf(of)) };
  };

  const plot = useRun(probabilityPlotAnalysis, sample, { name: 'plot', fixed: withLimits });
  /** The distribution that the plot is asked about. */
  const asked = computed(() => {
    const { value: request } = plot.request;
    return (
      request &&
      Object.fromEntries(FAMILY_FIELDS.flatMap((name) => (request[name] === undefined ? [] : [[name, request[name]]])))
    );
  });
  /** Estimated mean and sd of a normal have tests of their own. */
  const plain = computed(() => asked.value?.family === 'normal' && asked.value.parameters === undefined);

  const normality = useRun(normalityAnalysis, sample, { name: 'test', fixed: () => (plain.value ? atLevel() : null) });
  const fitted = useRun(goodnessOfFitAnalysis, sample, {
    name: 'fit',
    fixed: () => (plain.value ? null : atLevel()),
    elsewhere: FAMILY_FIELDS,
    settled: (own) => (asked.value ? { ...own, ...asked.value } : null),
  });
  const described = useRun(describeAnalysis, sample, {
    fixed: () => (several.value ? null : ofColumn()),
    settled: () => ({}),
  });
  const test = computed(() => (plain.value ? normality : fitted));
  /** Looked at only when asked for: it fits every family thousands of times. */
  const { shown: asksFor } = useShown();
  /** Families are compared for one column at a time. */
  const shown = computed({
    get: () => (several.value && asksFor.value === 'families' ? 'chosen' : asksFor.value),
    set: (one) => (asksFor.value = one),
  });
  const families = useRun(compareFamiliesAnalysis, sample, {
    name: 'families',
    fixed: () => (shown.value === 'families' ? atLevel() : null),
  });
  const runs = () => (shown.value === 'families' ? [plot, families] : [plot, test.value]);
  /** What the readings do not allow is not kept; the rest is. */
  const kept = () => {
    const some = runs().filter(({ whyNot }) => whyNot.value === null);
    return some.length > 0 ? some : runs();
  };
  const about = () =>
    column.value && sample.value ? { column: column.value.id, parts: parts.parts.value, sample: sample.value } : null;
  const stage = useStage({ runs, kept, about });

  const finding = computed(() => {
    if (shown.value === 'families') {
      const { value: all } = families.result;
      return all ? compareFamiliesAnalysis.finding(all) : [];
    }
    const [ofNormal, ofFamily] = [normality.result.value, fitted.result.value];
    if (test.value.whyNot.value !== null && plot.result.value)
      return probabilityPlotAnalysis.finding(plot.result.value);
    if (plain.value) return ofNormal ? normalityAnalysis.finding(ofNormal) : [];
    return ofFamily ? goodnessOfFitAnalysis.finding(ofFamily) : [];
  });
  const one = <R>(run: { result: ComputedRef<R | InParts<R> | null> }) =>
    computed(() => (run.result.value && !isInParts(run.result.value) ? run.result.value : null));
  const inParts = <R>(run: { result: ComputedRef<R | InParts<R> | null> }) =>
    computed(() => (run.result.value && isInParts(run.result.value) ? run.result.value : null));
  const ofOne = { plot: one(plot), normality: one(normality), fitted: one(fitted) };
  const ofSeries = { plot: inParts(plot), normality: inParts(normality), fitted: inParts(fitted) };
  const missed = computed(() =>
    shown.value !== 'families' && plain.value && ofOne.normality.value ? missedSentence(ofOne.normality.value) : null,
  );

  /** The fitted family on the page of distributions. */
  const askThis = computed(() => {
    const { value: of } = column;
    const { value: found } = ofOne.plot;
    return of && found ? { name: 'study-distributions', query: askDistribution({ column: of, ...found.law }) } : null;
  });

  const change = (field: string, value: FieldValue) => plot.address.setAll(familyChange(field, value));
  const objection = (field: string, value: FieldValue) => (field === 'family' ? null : plot.objection(field, value));

  const subject = computed(() => subjectWords({ column: column.value?.name, ...parts.asked.value }));

  return {
    column,
    parts,
    several,
    subject,
    ofOne,
    ofSeries,
    sample,
    plot,
    plain,
    normality,
    fitted,
    test,
    shown,
    families,
    described,
    stage,
    finding,
    missed,
    askThis,
    change,
    objection,
  };
}

export type FitRuns = ReturnType<typeof useFit>;
