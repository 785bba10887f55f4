import { fingerprintOf } from '@verdict/core/readings';
import { computed, ref, type Ref } from 'vue';
import { useRoute } from 'vue-router';
import { useJobs } from '../../stores/jobs.js';
import { useStudy } from '../../stores/study.js';
import { useWho } from '../../stores/who.js';
import type { AnyRun } from './any-run.js';
import type { About } from '../evidence/use-keeping.js';

/** What takes longer than this may be handed to the server, in milliseconds. */
const LONG = 20_000;

/** "40 s", "3 min": how long something still takes, about. */
export function aboutWords(milliseconds: number): string {
  const seconds = milliseconds / 1000;
  return seconds < 90 ? `${Math.max(10, Math.round(seconds / 10) * 10)} s` : `${Math.round(seconds / 60)} min`;
}

/** Long runs of a stage: how long they still take, and handing them to the server, which goes on when the page is closed. */
export function useLongWork(runs: Ref<readonly AnyRun[]>, subject: Ref<About | null>) {
  const store = useStudy();
  const jobs = useJobs();
  const who = useWho();
  const route = useRoute();
  const handing = ref(false);

  const long = computed(() =>
    runs.value.filter(
      ({ estimate, progress, job }) => progress.value !== null && !job?.value && (estimate?.value ?? 0) > LONG,
    ),
  );
  /** The remaining time in words; empty if it is short. */
  const remaining = computed(() => {
    const left = long.value.map(({ estimate, progress }) => estimate!.value! * (1 - progress.value!));
    return left.length ? `about ${aboutWords(Math.max(...left))} left` : '';
  });
  const onServer = computed(() => runs.value.some(({ job, progress }) => !!job?.value && progress.value !== null));
  const canHandOver = computed(() => long.value.length > 0 && subject.value !== null && !store.ruled);

  async function handOver(): Promise<void> {
    const { study } = store;
    const { value: of } = subject;
    if (!study || !of || handing.value) return;
    handing.value = true;
    // The server takes the readings as they are stored.
    if (await store.drained()) {
      const asked = {
        who: who.name,
        column: of.column,
        parts: of.parts ?? null,
        fingerprint: fingerprintOf(of.sample),
        place: route.fullPath,
      };
      const handed = long.value.map(({ analysis: { id: analysis, version }, request }) =>
        jobs.handOver(study.id, {
          ...asked,
          id: crypto.randomUUID(),
          analysis,
          version,
          request: { ...request.value },
        }),
      );
      await Promise.all(handed);
    }
    handing.value = false;
  }
  const handingProblem = computed(() => jobs.problem?.detail ?? '');

  return { remaining, onServer, canHandOver, handing, handOver, handingProblem };
}
