import { lineUpAnalysis } from '@verdict/core/analyses';
import { computed, ref, watch } from 'vue';
import { useStudy } from '../../../stores/study.js';
import type { FieldValue } from '../../../workbench/run/field-values.js';
import { useRun } from '../../../workbench/run/use-run.js';
import { useStage } from '../../../workbench/frame/use-stage.js';
import { randomSeed } from '../random-seed.js';
import { wasPlotSeen } from '../seen-plots.js';
import { FAMILY_FIELDS, isOfFamily, useFamily } from '../use-family.js';
import { useWhole } from '../use-whole.js';

interface Viewer {
  seed: number;
  pick: number;
  seen: boolean;
}

/**
 * The state of a line-up: a sheet from a seed that is not shown, the selection, the pick, and earlier viewers. It is reset if the readings, the
 * distribution or the kind of picture change.
 */
export function useLineUp() {
  const store = useStudy();
  const whole = useWhole();
  const family = useFamily();
  const seed = ref(randomSeed());
  const about = ref<number | null>(null);
  const pick = ref<number | null>(null);
  const seen = ref(false);
  const before = ref<Viewer[]>([]);

  const run = useRun(lineUpAnalysis, whole.sample, {
    name: 'line-up',
    fixed: whole.atLevel,
    elsewhere: [...FAMILY_FIELDS, 'seed'],
    settled: (own) => ({
      ...own,
      ...family.asked.value,
      seed: seed.value,
      before: before.value,
      ...(pick.value === null ? {} : { pick: pick.value, seen: seen.value }),
    }),
  });
  /** The request holds the seed, and with it the key: it stays here until the pick. */
  const picked = computed(() => pick.value !== null && run.request.value?.pick !== undefined);
  const stage = useStage({ runs: () => [run], mayLeave: () => picked.value });

  const known = computed(() => {
    const { value: column } = whole.column;
    return !!column && !!store.study && wasPlotSeen(store.study.id, column.id);
  });
  function sheet(): void {
    seed.value = randomSeed();
    about.value = null;
    pick.value = null;
  }
  function begin(): void {
    before.value = [];
    seen.value = known.value;
    sheet();
  }
  const judged = computed(() => JSON.stringify([family.asked.value, run.request.value?.as, whole.column.value?.id]));
  watch([judged, whole.sample], begin, { immediate: true });

  /** A selected picture is picked only after confirmation. */
  function decide(): void {
    if (about.value !== null) pick.value = about.value;
  }
  /** The next viewer gets another sheet. */
  function another(): void {
    if (pick.value === null) return;
    before.value = [...before.value, { seed: seed.value, pick: pick.value, seen: seen.value }];
    seen.value = false;
    sheet();
  }
  const change = (field: string, value: FieldValue) =>
    isOfFamily(field) ? family.change(field, value) : run.address.set(field, value);
  const objection = (field: string, value: FieldValue) => (field === 'family' ? null : run.objection(field, value));

  return { ...whole, run, stage, about, pick, picked, seen, known, decide, another, begin, change, objection };
}
