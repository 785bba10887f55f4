import type { Evidence } from '@verdict/contract';
import { analysisById } from '@verdict/core/analyses';
import { fingerprintOf, NO_READINGS } from '@verdict/core/readings';
import { drive, isUnavailable, Stopped, toWire } from '@verdict/core/road';
import { onScopeDispose, ref } from 'vue';
import { useEvidence } from '../../stores/evidence.js';
import { useStudy } from '../../stores/study.js';
import { useWho } from '../../stores/who.js';
import { inWorkers } from '../../workers/analysis-pool.js';

/** Runs the request of a piece of evidence on the present readings, and keeps the result in its place. */
export function useRunAgain() {
  const store = useStudy();
  const evidence = useEvidence();
  const who = useWho();
  /** The piece that is being run again, and the progress. */
  const running = ref<{ id: string; share: number } | null>(null);
  const problems = ref<Record<string, string>>({});
  let stopped = false;
  onScopeDispose(() => (stopped = true));

  /** The request with the present names of the columns. */
  function requestNow({ column, parts, request }: Evidence): Record<string, unknown> {
    const nameOf = (id: string) => store.columnById(id)?.name;
    if (column === null) return { ...request };
    const named = { ...request, column: nameOf(column) };
    if (parts === null) return named;
    return 'split' in parts ? { ...named, split: nameOf(parts.split) } : { ...named, beside: parts.beside.map(nameOf) };
  }

  async function work(item: Evidence): Promise<void> {
    const { study } = store;
    const sample = item.column === null ? NO_READINGS : store.sampleInParts(item.column, item.parts);
    if (!study) return;
    if (!sample) throw new Error('A column it uses is no longer in the table.');
    const analysis = analysisById(item.analysis);
    const asked = analysis.request.safeParse(requestNow(item));
    if (!asked.success) throw new Error(asked.error.issues[0]?.message ?? 'This analysis is no longer available.');
    const request = analysis.resolve(asked.data, sample);
    const result = await drive(
      inWorkers,
      { id: analysis.id, request: { ...request }, sample },
      {
        stopped: () => stopped,
        onProgress: ({ share }) => (running.value = { id: item.id, share }),
      },
    );
    if (isUnavailable(result)) throw new Error(result.reason);
    const done = await evidence.keep(study.id, {
      ...{ id: crypto.randomUUID(), who: who.name, analysis: analysis.id, version: analysis.version },
      ...{ column: item.column, parts: item.parts, request: { ...request }, fingerprint: fingerprintOf(sample) },
      ...{ result: toWire(result) as Record<string, unknown>, replaces: item.id },
    });
    if (!done) throw new Error(evidence.problem?.detail ?? 'The server refused.');
  }

  /** One after the other; what cannot be had any more is said beside its piece, which stays. */
  async function again(items: readonly Evidence[]): Promise<void> {
    if (running.value) return;
    stopped = false;
    for (const item of items) {
      if (stopped) break;
      running.value = { id: item.id, share: 0 };
      const { [item.id]: _, ...others } = problems.value;
      problems.value = others;
      try {
        if (await store.drained()) await work(item);
      } catch (error) {
        if (!(error instanceof Stopped))
          problems.value = { ...others, [item.id]: error instanceof Error ? error.message : String(error) };
      }
    }
    running.value = null;
  }
  const stop = () => (stopped = true);
  return { running, problems, again, stop };
}
