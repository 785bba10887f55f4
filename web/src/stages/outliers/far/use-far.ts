import {
  boxAnalysis,
  hasLevel,
  MOST_NAMED,
  outliersAnalysis,
  probabilityPlotAnalysis,
  studyTest,
} from '@verdict/core/analyses';
import { computed } from 'vue';
import { useRouter } from 'vue-router';
import { useStudy } from '../../../stores/study.js';
import { limitsOf } from '../../../workbench/sentence/limits-of.js';
import { useAddress } from '../../../workbench/run/use-address.js';
import { useParts } from '../../../workbench/parts/use-parts.js';
import { useRun } from '../../../workbench/run/use-run.js';
import { useStage } from '../../../workbench/frame/use-stage.js';

export const PICTURES = [
  { value: 'strip', label: 'Strip' },
  { value: 'rows', label: 'In order' },
  { value: 'box', label: 'Box' },
  { value: 'plot', label: 'Plot' },
  { value: 'influence', label: 'Influence' },
] as const;
export const PANELS = [
  { value: 'far', label: 'Extremes' },
  { value: 'rules', label: 'All rules' },
  { value: 'without', label: 'Without them' },
] as const;

/** One of a list as it stands in the address; the first where it says nothing. */
function useOneOf<T extends string>(name: string, all: readonly { value: T }[]) {
  const address = useAddress();
  return computed<T>({
    get: () => all.find(({ value }) => value === address.textOf(name))?.value ?? all[0]!.value,
    set: (one) => void address.change({ [name]: one === all[0]!.value ? undefined : one }),
  });
}

/** The far readings of the subject as a whole: every rule, what changes without them, and their pictures. */
export function useFar() {
  const store = useStudy();
  const router = useRouter();
  const parts = useParts();
  parts.resume();
  const column = computed(() => store.subject);
  const name = computed(() => column.value?.name ?? '');
  /** Labels tell where a reading comes from; the question is about the column as a whole. */
  const by = computed(() => (parts.split.value ? { split: parts.split.value.id } : null));
  const sample = computed(() => (column.value ? store.sampleInParts(column.value.id, by.value) : null));
  const bare = computed(() => store.sample);
  const cautions = computed(() =>
    parts.beside.value.length > 0 ? [`This analysis uses ${name.value} alone, not the other columns.`] : [],
  );

  const picture = useOneOf('picture', PICTURES);
  const panel = useOneOf('panel', PANELS);
  const moving = useOneOf('moving', [{ value: 'mean' }, { value: 'sd' }] as const);

  const run = useRun(outliersAnalysis, sample, {
    name: 'outliers',
    fixed: () => {
      const { subject, study } = store;
      if (!subject || !study) return null;
      const { target: _, ...limits } = limitsOf(subject);
      const split = parts.split.value ? { split: parts.split.value.name } : {};
      return { column: subject.name, ...split, alpha: study.alpha, quantileType: study.quantileType, ...limits };
    },
  });
  const { result } = run;
  const family = computed(() => result.value?.family ?? 'normal');
  const box = useRun(boxAnalysis, bare, {
    name: 'outliers.box',
    fixed: () =>
      picture.value === 'box' && column.value
        ? { column: column.value.name, quantileType: store.study!.quantileType }
        : null,
  });
  const plot = useRun(probabilityPlotAnalysis, bare, {
    name: 'outliers.plot',
    fixed: () =>
      picture.value === 'plot' && column.value
        ? { column: column.value.name, family: family.value, band: 'none' }
        : null,
  });

  const about = () =>
    column.value && sample.value ? { column: column.value.id, parts: by.value, sample: sample.value } : null;
  const stage = useStage({ runs: () => [run], about });

  const named = computed(() => (result.value ? (studyTest(result.value).rows ?? []) : []));
  const aside = computed(() =>
    (store.study?.setAside ?? []).filter((one) => one.column === column.value?.id).map(({ row }) => row),
  );
  /** Back in, and all of them asked about at once. */
  function askTogether(): void {
    if (!column.value || aside.value.length === 0) return;
    const id = column.value.id;
    store.change({ kind: 'put-back', readings: aside.value.map((row) => ({ column: id, row })) });
    const most = Math.min(MOST_NAMED, Math.max(aside.value.length + named.value.length, result.value?.most ?? 1));
    run.address.setAll({ rule: 'generalized-esd', most });
  }
  function showInTable(rows: readonly number[]): void {
    const arranged = JSON.stringify({ sort: [], only: [{ kind: 'rows', rows }] });
    void router.push({ name: 'readings', query: { arranged } });
  }
  const ruleHasLevel = computed(() => result.value !== null && hasLevel(result.value.rule));

  return {
    ...{ column, name, sample, cautions, run, stage, box, plot, picture, panel, moving },
    ...{ named, aside, askTogether, showInTable, ruleHasLevel },
  };
}
