import type { PartsBy } from '@verdict/contract';
import { fingerprintOf, type Sample } from '@verdict/core/readings';
import { toWire, type AnyAnalysis } from '@verdict/core/road';
import { computed, ref, watch, type Ref } from 'vue';
import { useEvidence } from '../../stores/evidence.js';
import { useStudy } from '../../stores/study.js';
import { useWho } from '../../stores/who.js';

export interface Keepable {
  analysis: Pick<AnyAnalysis, 'id' | 'version' | 'name'>;
  request: object | null;
  result: unknown;
  /** False while the result is only a partial one. */
  whole: boolean;
  /** True where there is none and none will come: the readings do not allow it. */
  none: boolean;
}

/** What the kept results are about: a column with its readings, or no column at all. */
export interface About {
  column: string | null;
  /** By what the readings stand in parts; left out for a column as a whole. */
  parts?: PartsBy | null;
  sample: Sample;
}

/** Keeps what the stage shows as evidence, each result once for the same request and data; nothing while `subject` is null. */
export function useKeeping(shown: Ref<Keepable[]>, subject: Ref<About | null>) {
  const store = useStudy();
  const evidence = useEvidence();
  const who = useWho();
  const keeping = ref(false);
  const kept = ref('');
  const problem = ref('');
  const fingerprint = computed(() => (subject.value ? fingerprintOf(subject.value.sample) : ''));

  /** The same analysis with the same settings on the same readings has the same signature. */
  const signature = (analysis: string, request: object, of: string) =>
    JSON.stringify([analysis, Object.entries(request).sort(([a], [b]) => (a < b ? -1 : 1)), of]);
  const isKept = (analysis: string, request: object) => {
    const wanted = signature(analysis, request, fingerprint.value);
    return evidence.items.some((item) => signature(item.analysis, item.request, item.fingerprint) === wanted);
  };

  // What was said holds until something else is shown; a glimpse of what is still worked out is nothing else.
  watch(
    () => shown.value.map(({ request, result, whole }) => (whole ? result : request)),
    (now, before) => {
      if (now.length === before.length && now.every((one, i) => one === before[i])) return;
      kept.value = '';
      problem.value = '';
    },
  );

  async function keep(): Promise<void> {
    const { study } = store;
    const { value: of } = subject;
    if (!study || keeping.value) return;
    if (!of) {
      problem.value = 'This result does not belong to a study, so it cannot be kept.';
      return;
    }
    if (store.ruled) {
      problem.value = 'The study is decided. Reopen it to keep more evidence.';
      return;
    }
    if (shown.value.some(({ whole }) => !whole)) {
      problem.value = shown.value.some(({ none }) => none)
        ? 'There is no result to keep.'
        : 'The calculation is not finished. The result can be kept when it is.';
      return;
    }
    if (!(await store.drained())) {
      problem.value = 'Some changes are not saved yet. Keep the result when they are.';
      return;
    }
    const whole = shown.value.filter(({ request, result, whole: ready }) => request && result && ready);
    // The readings have changed while the last change was on its way.
    if (whole.length < shown.value.length) return;
    const fresh = whole.filter(({ analysis, request }) => !isKept(analysis.id, request!));
    if (fresh.length === 0) {
      kept.value = 'This result is already kept.';
      return;
    }
    keeping.value = true;
    problem.value = '';
    for (const { analysis, request, result } of fresh) {
      const done = await evidence.keep(study.id, {
        id: crypto.randomUUID(),
        who: who.name,
        analysis: analysis.id,
        version: analysis.version,
        column: of.column,
        parts: of.parts ?? null,
        request: { ...request },
        fingerprint: fingerprint.value,
        result: toWire(result) as Record<string, unknown>,
        note: '',
      });
      if (!done) problem.value = evidence.problem?.detail ?? 'The server refused.';
    }
    keeping.value = false;
    if (!problem.value) kept.value = `Kept: ${fresh.map(({ analysis }) => analysis.name.toLowerCase()).join(' and ')}.`;
  }

  return { keep, keeping, kept, problem };
}
