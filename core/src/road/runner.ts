import type { Sample } from '../readings/sample.js';
import type { Answers, AnyAnalysis } from './analysis.js';
import { chunkCount, performChunk, type KernelOrder } from './kernels.js';
import { unavailable, whyLabels } from './cautions.js';
import { notFiniteIn } from './wire.js';

/** Where an analysis stands once some of its orders are answered. */
export type Stage = { done: false; partial: unknown; orders: KernelOrder[] } | { done: true; result: unknown };

/** Work to be placed somewhere: in this thread, in a browser worker, in a thread of the server. */
export interface Executor {
  advance(id: string, request: unknown, sample: Sample, answered: Answers[]): Promise<Stage>;
  chunk(order: KernelOrder, k: number): Promise<Float64Array>;
  /** How many chunks may be under way at once. */
  lanes: number;
}

/** The analysis of an id; throws where there is none. The road knows no list. */
export type Lookup = (id: string) => AnyAnalysis;

/**
 * Runs an analysis up to its next open order, replaying the answers it already has. An analysis is pure, so replaying costs only
 * the little work between orders, and no worker has to remember anything.
 */
export function advance(find: Lookup, id: string, request: unknown, sample: Sample, answered: Answers[]): Stage {
  const analysis = find(id);
  const settings = analysis.request.parse(request);
  const refused = analysis.takesLabels ? null : whyLabels(sample);
  if (refused) return { done: true, result: unavailable(sample, refused) };
  const run = analysis.run(settings, sample);
  let step = run.next([]);
  for (const answers of answered) {
    if (step.done) break;
    step = run.next(answers);
  }
  if (step.done) return { done: true, result: finiteOrWhyNot(step.value, sample) };
  return { done: false, partial: step.value.partial, orders: step.value.orders };
}

/**
 * The one guard between what is worked out and what is said: a result with a figure that is no finite number is no result. Nothing of the kind is known;
 * should it come to light, the page says which figure it was.
 */
function finiteOrWhyNot(result: unknown, sample: Sample): unknown {
  const path = notFiniteIn(result);
  if (path === null) return result;
  return unavailable(
    sample,
    `A figure of this result, ${path}, is not a finite number, so the result cannot be shown.`,
  );
}

export interface Progress {
  /** 0 … 1 of the repeated work known so far. */
  share: number;
  partial: unknown;
  /** The chunks known by now of every order of the step, for a glimpse; made when it is asked for. */
  soFar: () => Answers;
}

export class Stopped extends Error {
  constructor() {
    super('The run was stopped.');
    this.name = 'Stopped';
  }
}

/**
 * Drives an analysis to its result over an executor. Chunks finish in any order and are put back in theirs: the result does not
 * depend on how many lanes there are. Throws `Stopped` once the signal is set; no further chunk is handed out.
 */
export async function drive(
  executor: Executor,
  job: { id: string; request: unknown; sample: Sample },
  options: { onProgress?: (progress: Progress) => void; stopped?: () => boolean } = {},
): Promise<unknown> {
  const answered: Answers[] = [];
  for (;;) {
    const stage = await executor.advance(job.id, job.request, job.sample, answered);
    if (stage.done) return stage.result;
    if (options.stopped?.()) throw new Stopped();
    options.onProgress?.({ share: 0, partial: stage.partial, soFar: () => stage.orders.map(() => []) });
    answered.push(
      await answer(executor, stage.orders, (share, soFar) => {
        if (options.stopped?.()) throw new Stopped();
        options.onProgress?.({ share, partial: stage.partial, soFar });
      }),
    );
  }
}

type Report = (share: number, soFar: () => Answers) => void;

async function answer(executor: Executor, orders: KernelOrder[], report: Report): Promise<Answers> {
  const answers: Answers = orders.map(() => []);
  const queue = orders.flatMap((order, o) => Array.from({ length: chunkCount(order) }, (_, k) => ({ order, o, k })));
  const total = queue.length;
  // Holes are chunks still under way.
  const soFar = () => answers.map((chunks) => chunks.filter(() => true));
  let next = 0;
  let done = 0;
  let broken = false;
  const lane = async (): Promise<void> => {
    while (next < total && !broken) {
      const { order, o, k } = queue[next++]!;
      try {
        answers[o]![k] = await executor.chunk(order, k);
        if (!broken) report(++done / total, soFar);
      } catch (error) {
        // One that fails, or is told to stop, ends the others too.
        broken = true;
        throw error;
      }
    }
  };
  await Promise.all(Array.from({ length: Math.min(executor.lanes, total) }, lane));
  return answers;
}

/** Everything in this thread, one chunk after the other: the command line and the tests. */
export const inThread = (find: Lookup): Executor => ({
  advance: async (...job) => advance(find, ...job),
  chunk: performChunk,
  lanes: 1,
});
