import { z } from 'zod';
import type { Sample } from '../readings/sample.js';
import { whyEmpty } from './cautions.js';

const NAME = 'Choose a group by its label.';
/** Which of the groups or columns is meant. */
export const partName = z.string(NAME).min(1, NAME).max(1_000, NAME).optional();

/** The two samples that are meant, in the order asked; why there are none. */
export function twoOf(
  sample: Sample,
  { first, second }: { first?: string | undefined; second?: string | undefined },
): [Sample, Sample] | string {
  const parts = (sample.groups?.samples ?? []).filter(({ values }) => values.length > 0);
  const named = (wanted: string | undefined, not: string | undefined) =>
    wanted === undefined ? parts.find((part) => part.name !== not) : parts.find((part) => part.name === wanted);
  if (parts.length < 2) return whyOne(sample, parts);
  for (const wanted of [first, second])
    if (wanted !== undefined && !parts.some((part) => part.name === wanted))
      return `There are no readings in “${wanted}”. The groups are: ${parts.map((part) => part.name).join(', ')}.`;
  const a = named(first, second)!;
  return [a, named(second, a.name)!];
}

function whyOne(sample: Sample, [only]: readonly Sample[]): string {
  if (!only) return whyEmpty(sample);
  return sample.groups!.by === null
    ? `Only ${only.name} has readings, so there is nothing to compare.`
    : `Of ${sample.groups!.by} only ${only.name} has readings, so there is nothing to compare.`;
}
