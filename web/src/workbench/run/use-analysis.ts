import type { Job } from '@verdict/contract';
import type { Sample } from '@verdict/core/readings';
import { drive, Stopped, type Analysis, type Settings, type Unavailable } from '@verdict/core/road';
import { computed, onScopeDispose, ref, shallowRef, watch, type Ref } from 'vue';
import { inWorkers } from '../../workers/analysis-pool.js';
import { unchanged } from './unchanged.js';

/** A picture that grows is drawn at most 20 times a second. */
const BETWEEN_GLIMPSES = 50;

/** Where long work may be done in place of the page. */
export interface Elsewhere {
  /** The job that was asked the same of the same readings, if any. */
  jobFor(analysis: string, request: object, sample: Sample): Job | null;
  resultOf(job: Job): Promise<unknown>;
  stop(job: Job): Promise<void>;
  resume(job: Job): Promise<void>;
}

/** After this time in milliseconds the total time can be estimated. */
const TELLING = 1_000;

export interface Running<Result> {
  /** The result, or the part of it that is known while the simulation continues. */
  result: Ref<Result | null>;
  /** 0 … 1 while running, else null. */
  progress: Ref<number | null>;
  /** True once the run was stopped by the analyst: `result` is then the partial one. */
  stopped: Ref<boolean>;
  failed: Ref<string | null>;
  /** True while the result is the whole one of the settings and the sample: only that can be kept. */
  whole: Ref<boolean>;
  milliseconds: Ref<number>;
  /** True where repeated work was done for it, by all workers. */
  simulated: Ref<boolean>;
  /** How long all of it will take, in milliseconds; null while that is not known, and where the server does it. */
  estimate: Ref<number | null>;
  /** The job on the server that does it in place of the page. */
  job: Ref<Job | null>;
  stop: () => void;
  again: () => void;
}

/**
 * Runs an analysis in the workers whenever its settings or its sample change. A newer run replaces an older one at once: late chunks
 * of the older are dropped.
 */
export function useAnalysis<Request extends Settings, Result>(
  { id, glimpse }: Pick<Analysis<Request, Result>, 'id' | 'run' | 'glimpse'>,
  settings: Ref<Request | null>,
  sample: Ref<Sample | null>,
  elsewhere: Elsewhere | null = null,
): Running<Result | Unavailable> {
  // Settings made anew that say the same, since another part of the address has changed, are no reason to run.
  const asked = unchanged(() => settings.value);
  const result = shallowRef<Result | Unavailable | null>(null);
  const progress = ref<number | null>(null);
  const stopped = ref(false);
  const failed = ref<string | null>(null);
  const milliseconds = ref(0);
  const simulated = ref(false);
  const estimate = ref<number | null>(null);
  const job = computed(() =>
    asked.value && sample.value ? (elsewhere?.jobFor(id, asked.value, sample.value) ?? null) : null,
  );
  let current = 0;
  /** The run whose result is shown, and the first run since the readings changed. */
  let shown = 0;
  let firstOfSample = 0;
  let stoppedAt = 0;

  async function run(): Promise<void> {
    const own = ++current;
    const isCurrent = () => own === current;
    stopped.value = false;
    failed.value = null;
    estimate.value = null;
    if (!asked.value || !sample.value) {
      result.value = null;
      progress.value = null;
      return;
    }
    if (job.value) return follow(job.value, isCurrent);
    progress.value = 0;
    simulated.value = false;
    const started = performance.now();
    let looked = started;
    try {
      const job = { id, request: { ...asked.value }, sample: sample.value };
      const found = await drive(inWorkers, job, {
        stopped: () => !isCurrent(),
        onProgress: ({ share, partial, soFar }) => {
          if (!isCurrent()) return;
          if (share === 0) result.value = partial as Result;
          else if (glimpse && share < 1 && performance.now() - looked > BETWEEN_GLIMPSES) {
            looked = performance.now();
            result.value = glimpse(job.request, partial as Result, soFar());
          }
          simulated.value = true;
          progress.value = share;
          const elapsed = performance.now() - started;
          if (share > 0 && elapsed > TELLING) estimate.value = elapsed / share;
        },
      });
      // While something is dragged runs overtake each other: a newer picture of the same readings is shown, though the newest is still to come.
      if (!isCurrent() && (own < shown || own < firstOfSample || own <= stoppedAt)) return;
      shown = own;
      result.value = found as Result;
      milliseconds.value = performance.now() - started;
    } catch (error) {
      if (error instanceof Stopped || !isCurrent()) return;
      failed.value = error instanceof Error ? error.message : String(error);
    }
    if (isCurrent()) progress.value = null;
  }

  /** Shows the result of a job: parts without simulation are computed here, the rest comes from the server. */
  async function follow(at: Job, isCurrent: () => boolean): Promise<void> {
    // One that is done is still on its way here.
    progress.value = at.state === 'running' || at.state === 'done' ? at.share : null;
    simulated.value = true;
    stopped.value = at.state === 'stopped';
    failed.value = at.state === 'failed' ? at.problem : null;
    try {
      if (at.state === 'done') {
        const found = (await elsewhere!.resultOf(at)) as Result;
        if (!isCurrent()) return;
        result.value = found;
        progress.value = null;
        return;
      }
      const stage = await inWorkers.advance(id, { ...asked.value }, sample.value!, []);
      if (isCurrent() && !stage.done) result.value = stage.partial as Result;
    } catch (error) {
      if (!isCurrent()) return;
      failed.value = error instanceof Error ? error.message : String(error);
      progress.value = null;
    }
  }

  function stop(): void {
    if (progress.value === null) return;
    if (job.value) return void elsewhere!.stop(job.value);
    stoppedAt = current++;
    progress.value = null;
    stopped.value = true;
  }

  function again(): void {
    if (job.value?.state === 'stopped') void elsewhere!.resume(job.value);
    else void run();
  }

  watch(
    () => job.value?.share,
    (share) => {
      if (job.value?.state === 'running' && share !== undefined) progress.value = share;
    },
  );
  // A job that is handed over, ends, or is taken off the list.
  watch(
    () => [job.value?.id, job.value?.state],
    () => void run(),
  );
  watch(
    [asked, sample],
    (now, before) => {
      if (now[1] !== before[1] || !now[0]) firstOfSample = current + 1;
      void run();
    },
    { immediate: true },
  );
  onScopeDispose(() => void current++);
  const whole = computed(
    () => result.value !== null && progress.value === null && !stopped.value && failed.value === null,
  );
  return { result, progress, stopped, failed, whole, milliseconds, simulated, estimate, job, stop, again };
}
