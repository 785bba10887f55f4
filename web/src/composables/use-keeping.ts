import type { PartsBy } from '@verdict/contract';
import { fingerprintOf, type Sample } from '@verdict/core/readings';
import { toWire, type Analysis, type Settings } from '@verdict/core/road';
import { computed, ref, watch, type Ref } from 'vue';
import { useEvidence } from '../stores/evidence.js';
import { useStudy } from '../stores/study.js';
import { useWho } from '../stores/who.js';

export interface Keepable {
  // An analysis of whatever request and result: the store only needs its id and version.
  analysis: Pick<Analysis<Settings, never>, 'id' | 'version' | 'name'>;
  request: Settings | null;
  result: unknown;
  /** False while the result is only a partial one. */
  whole: boolean;
}

/** What the kept results are about: a column with its readings, or no column at all. */
export interface About {
  column: string | null;
  /** By what the readings stand in parts; left out for a column as a whole. */
  parts?: PartsBy | null;
  sample: Sample;
}

/**
 * Keeps what the stage shows as evidence, each result once for the same request and data. Without `about` it is about the subject;
 * nothing can be kept while `about` is null.
 */
export function useKeeping(shown: Ref<Keepable[]>, about?: Ref<About | null>) {
  const store = useStudy();
  const subject = computed<About | null>(() => {
    if (about) return about.value;
    return store.subject && store.sample ? { column: store.subject.id, sample: store.sample } : null;
  });
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

  watch(shown, () => {
    kept.value = '';
    problem.value = '';
  });

  async function keep(): Promise<void> {
    const { study } = store;
    const { value: of } = subject;
    if (!study || !of || keeping.value || store.ruled) return;
    if (!(await store.drained())) {
      problem.value = 'Some changes are not stored yet; keep it when they are.';
      return;
    }
    const whole = shown.value.filter(({ request, result, whole: ready }) => request && result && ready);
    if (whole.length < shown.value.length) return;
    const fresh = whole.filter(({ analysis, request }) => !isKept(analysis.id, request!));
    if (fresh.length === 0) {
      kept.value = 'Already kept, as it stands.';
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
