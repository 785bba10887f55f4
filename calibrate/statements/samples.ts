import { inThisThread } from '../../core/src/analyses/registry.ts';
import { analysisById } from '../../core/src/analyses/registry.ts';
import { distribution, familyByName } from '../../core/src/distributions/registry.ts';
import { createStream } from '../../core/src/random/stream.ts';
import type { Sample } from '../../core/src/readings/sample.ts';
import type { Piece } from '../../core/src/road/analysis.ts';
import { drive } from '../../core/src/road/runner.ts';
import { sampleOf } from '../../core/test/samples.ts';

/** n readings of a family, rounded to a step where one is given. */
export function drawn(family: string, parameters: Record<string, number>, n: number, seed: number, step = 0): Sample {
  const values = new Float64Array(n);
  distribution(familyByName(family), parameters).sample(createStream(seed, n), values);
  if (step > 0) for (let i = 0; i < n; i++) values[i] = Math.round(values[i]! / step) * step;
  return { ...sampleOf(values), name: 'x', resolution: step > 0 ? step : null };
}

/** The same readings in groups of equal size. */
export function inGroups(sample: Sample, k: number): Sample {
  const size = sample.values.length / k;
  const samples = Array.from({ length: k }, (_, g) => ({
    ...sample,
    name: `g${g + 1}`,
    values: sample.values.slice(g * size, (g + 1) * size),
    rows: sample.rows.slice(g * size, (g + 1) * size),
  }));
  return { ...sample, groups: { by: 'kiln', samples, without: 0 } };
}

export async function ran<R>(id: string, sample: Sample, request: object = {}): Promise<R> {
  return (await drive(inThisThread, { id, request: { column: sample.name, ...request }, sample })) as R;
}

/** The codes of a finding. */
export const codesOf = (id: string, result: unknown): string[] =>
  analysisById(id)
    .finding(result as never)
    .flatMap((piece: Piece) => (piece.code ? [piece.code] : []));

export const NORMAL = { mean: 10, sd: 1 };
