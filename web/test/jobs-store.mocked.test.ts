import type { Job } from '@verdict/contract';
import { createPinia, setActivePinia } from 'pinia';
import { beforeEach, describe, expect, it, vi } from 'vitest';

const listJobs = vi.fn<() => Promise<Job[]>>();
vi.mock('../src/api/client.js', () => ({
  ApiError: class extends Error {},
  api: { listJobs: () => listJobs(), removeJob: () => Promise.resolve({}) },
}));
const { useJobs } = await import('../src/stores/jobs.js');

const job = { id: 'a', study: { id: 's', name: '' }, state: 'stopped' } as Job;

beforeEach(() => setActivePinia(createPinia()));

describe('a removed job', () => {
  it('does not return with a list that was on its way, nor with a late event', async () => {
    const jobs = useJobs();
    listJobs.mockResolvedValueOnce([job]);
    await jobs.load();
    let answer = (_: Job[]): void => undefined;
    listJobs.mockReturnValueOnce(new Promise((resolve) => (answer = resolve)));
    const again = jobs.load();
    await jobs.remove(job);
    answer([job]);
    await again;
    expect(jobs.items).toEqual([]);
    jobs.hear(job);
    expect(jobs.items).toEqual([]);
  });
});
