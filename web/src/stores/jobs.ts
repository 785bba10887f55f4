import type { Job, JobRequest, Problem } from '@verdict/contract';
import { fingerprintOf, type Sample } from '@verdict/core/readings';
import { defineStore } from 'pinia';
import { ref, shallowRef } from 'vue';
import { api, ApiError } from '../api/client.js';

/** The same settings however they are ordered. */
const signature = (request: object) => JSON.stringify(Object.entries(request).sort(([a], [b]) => (a < b ? -1 : 1)));

/** Long work on the server: of the open study, or of all of them on the page of jobs. */
export const useJobs = defineStore('jobs', () => {
  /** The latest first. */
  const items = shallowRef<Job[]>([]);
  const problem = shallowRef<Problem | null>(null);
  const state = ref<'loading' | 'ready' | 'failed'>('loading');
  /** A list that was on its way, or an event, may still hold a job that was removed meanwhile. */
  const removed = new Set<string>();
  /** The study whose jobs are held; undefined for all. */
  let shown: string | undefined;

  async function guarded<T>(call: () => Promise<T>): Promise<T | null> {
    problem.value = null;
    try {
      return await call();
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      problem.value = error.problem;
      return null;
    }
  }

  async function load(studyId?: string): Promise<void> {
    if (shown !== studyId) {
      items.value = [];
      state.value = 'loading';
    }
    shown = studyId;
    const list = await guarded(() => api.listJobs(studyId));
    if (shown !== studyId) return;
    if (list) items.value = list.filter(({ id }) => !removed.has(id));
    state.value = list ? 'ready' : 'failed';
  }

  function hear(job: Job): void {
    if (removed.has(job.id) || (shown !== undefined && job.study.id !== shown)) return;
    const known = items.value.some(({ id }) => id === job.id);
    items.value = known ? items.value.map((one) => (one.id === job.id ? job : one)) : [job, ...items.value];
  }

  /** The job that was asked the same of the same readings, if any. */
  function jobFor(analysis: string, request: object, sample: Sample): Job | null {
    const asked = items.value.filter(
      (job) => job.analysis === analysis && signature(job.request) === signature(request),
    );
    if (asked.length === 0) return null;
    const fingerprint = fingerprintOf(sample);
    return asked.find((job) => job.fingerprint === fingerprint) ?? null;
  }

  /** Hands work to the server; false, with the problem said, where it is refused. */
  async function handOver(studyId: string, asked: JobRequest): Promise<boolean> {
    const job = await guarded(() => api.handOver(studyId, asked));
    if (job) hear(job);
    return job !== null;
  }

  const resultOf = async ({ id }: Pick<Job, 'id'>): Promise<unknown> => (await api.jobResult(id)).result;

  const told = async (call: () => Promise<Job>): Promise<void> => {
    const job = await guarded(call);
    if (job) hear(job);
  };
  const stop = ({ id }: Pick<Job, 'id'>) => told(() => api.stopJob(id));
  const resume = ({ id }: Pick<Job, 'id'>) => told(() => api.resumeJob(id));
  async function remove({ id }: Pick<Job, 'id'>): Promise<void> {
    if ((await guarded(() => api.removeJob(id))) === null) return;
    removed.add(id);
    items.value = items.value.filter((one) => one.id !== id);
  }

  return { items, problem, state, load, hear, jobFor, handOver, resultOf, stop, resume, remove };
});
