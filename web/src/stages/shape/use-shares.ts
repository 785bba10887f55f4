import { sharesAnalysis, type DescribeResult } from '@verdict/core/analyses';
import type { Sample } from '@verdict/core/readings';
import { computed, type Ref } from 'vue';
import { useStudy } from '../../stores/study.js';
import { objectionOf } from '../../workbench/run/asked.js';
import type { FieldValue } from '../../workbench/run/field-values.js';
import { useRun } from '../../workbench/run/use-run.js';
import type { Settings } from '../../workbench/run/use-settings.js';

interface SharesOf {
  column: Ref<{ name: string; lowerLimit: number | null; upperLimit: number | null } | null>;
  asked: () => object | null;
  figures: Ref<DescribeResult | null>;
  wanted: () => boolean;
}

/** The shares within limits: those of the column, or others that are typed and dragged. */
export function useShares(sample: Ref<Sample | null>, { column, asked, figures, wanted }: SharesOf) {
  const store = useStudy();

  /** The limits of the column until others are typed or dragged; without any, the quartiles. */
  function settled(settings: Settings): object | null {
    const { lowerLimit = null, upperLimit = null } = column.value ?? {};
    const specified = lowerLimit !== null || upperLimit !== null;
    const specification = { lower: lowerLimit ?? undefined, upper: upperLimit ?? undefined };
    if (settings.of === 'specification') return specified ? { ...settings, ...specification } : null;
    if (settings.of !== 'limits') return settings;
    const start = specified ? specification : { lower: figures.value?.q1, upper: figures.value?.q3 };
    const typed = 'lower' in settings || 'upper' in settings;
    return { ...(typed ? {} : start), ...settings };
  }
  const fixed = () => (wanted() && asked() ? { ...asked(), alpha: store.study!.alpha } : null);
  const run = useRun(sharesAnalysis, sample, { fixed, settled });

  /** A limit of one's own is no specification limit. */
  function changed(field: string, value: FieldValue): Record<string, FieldValue> {
    if (field !== 'lower' && field !== 'upper') return { [field]: value };
    const { lower, upper } = run.request.value ?? {};
    return { lower, upper, [field]: value, of: 'limits' };
  }
  const change = (field: string, value: FieldValue) => run.address.setAll(changed(field, value));
  /** Limits the wrong way round are refused where they are typed. */
  const objection = (field: string, value: FieldValue) =>
    field === 'lower' || field === 'upper'
      ? objectionOf(sharesAnalysis, fixed() ?? {}, run.request.value ?? {}, changed(field, value))
      : null;

  const values = computed(() => run.request.value ?? { of: 'specification', curve: 'normal', confidence: 0.95 });
  /** Why there are no shares, where there are none. */
  const none = computed(() =>
    wanted() && column.value && !run.request.value
      ? `${column.value.name} has no specification limits. Enter them on its card in Readings, or use other limits.`
      : '',
  );
  const finding = computed(() => (run.result.value ? sharesAnalysis.finding(run.result.value) : []));
  return { run, change, objection, values, none, finding };
}
