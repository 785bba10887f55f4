import { z } from 'zod';
import { GREATEST_SEED } from '../random/stream.js';
import type { Field } from './analysis.js';
import {
  ANY_CONFIDENCE,
  anyConfidenceSetting,
  LEAST_REPLICATES,
  MOST_REPLICATES,
  replicatesSetting,
  seedSetting,
} from './settings.js';

/** A setting declared once: what the request takes (with its range and its usual value), and the word of the sentence that holds it. */
export interface Setting<Schema extends z.ZodType> {
  schema: Schema;
  field: Field;
}

/** One of several words. */
export function choice<const V extends string>(
  field: string,
  label: string,
  options: readonly { value: V; text: string }[],
  usual: NoInfer<V>,
) {
  const values = options.map(({ value }) => value) as [V, ...V[]];
  const schema = z.enum(values).default(usual as never);
  return { schema, field: { field, label, type: 'choice', options } } as const satisfies Setting<typeof schema>;
}

/** Several of some words, none twice; at least one. */
export function choices<const V extends string>(
  field: string,
  label: string,
  options: readonly { value: V; text: string }[],
  { usual, most, what }: { usual: readonly NoInfer<V>[]; most: number; what: string },
) {
  const values = options.map(({ value }) => value) as [V, ...V[]];
  const said = `Choose 1 to ${most} ${what}, each at most once.`;
  const schema = z
    .array(z.enum(values), said)
    .min(1, said)
    .max(most, said)
    .refine((chosen) => new Set(chosen).size === chosen.length, said)
    .default(usual as never);
  return { schema, field: { field, label, type: 'choices', options, most } } as const satisfies Setting<typeof schema>;
}

/** No number of a list is greater. */
const MOST_LISTED = 1e12;

/** Several numbers, which may be left out: they read as `empty` then. */
export function numbers(field: string, label: string, { least, most }: { least: number; most: number }, empty: string) {
  const said = `The ${label} are ${least} to ${most} numbers.`;
  const schema = z
    .array(z.number(said).min(-MOST_LISTED, said).max(MOST_LISTED, said), said)
    .min(least, said)
    .max(most, said)
    .optional();
  return {
    schema,
    field: { field, label, type: 'numbers', min: -MOST_LISTED, max: MOST_LISTED, empty },
  } as const satisfies Setting<typeof schema>;
}

/** A whole number within a range. */
export function whole(field: string, label: string, range: { min: number; max: number }, usual: number, what: string) {
  const { min, max } = range;
  const said = `${what} must be a whole number from ${min} to ${max}.`;
  const schema = z.int(said).min(min, said).max(max, said).default(usual);
  return { schema, field: { field, label, type: 'whole', min, max } } as const satisfies Setting<typeof schema>;
}

/** The confidence of an interval, which may be anything: an unusual one is pointed out, not refused. */
export const anyConfidence = (label: string) =>
  ({
    schema: anyConfidenceSetting,
    field: { field: 'confidence', label, type: 'percent', ...ANY_CONFIDENCE },
  }) as const satisfies Setting<typeof anyConfidenceSetting>;

/** A share as a percentage within a range, which may be left out: it reads as `empty` then. */
export function share(field: string, label: string, { min, max }: { min: number; max: number }, empty: string) {
  const said = `The ${label} must lie between ${100 * min} % and ${100 * max} %; 0.02 means 2 %.`;
  const schema = z.number(said).min(min, said).max(max, said).optional();
  return { schema, field: { field, label, type: 'percent', min, max, empty } } as const satisfies Setting<
    typeof schema
  >;
}

/** How many samples are simulated; by n, where nothing is asked. */
export const replicates = (label: string) =>
  ({
    schema: replicatesSetting,
    field: { field: 'replicates', label, type: 'whole', min: LEAST_REPLICATES, max: MOST_REPLICATES },
  }) as const satisfies Setting<typeof replicatesSetting>;

/** Where the draws begin. */
export const seed = (label: string) =>
  ({
    schema: seedSetting,
    field: { field: 'seed', label, type: 'whole', min: 0, max: GREATEST_SEED },
  }) as const satisfies Setting<typeof seedSetting>;

const MOST_WORDS = 200;
/** Words that are typed, such as a formula, which may be left out: they read as `empty` then. */
export function words(field: string, label: string, empty: string) {
  const said = `The ${label} may have at most ${MOST_WORDS} characters.`;
  const schema = z.string(said).max(MOST_WORDS, said).optional();
  return { schema, field: { field, label, type: 'text', most: MOST_WORDS, empty } } as const satisfies Setting<
    typeof schema
  >;
}

interface NumberRange {
  above?: number;
  from?: number;
  to?: number;
}

/** A number within a range, which may be left out: it reads as `empty` then. */
export function number(field: string, label: string, range: NumberRange, empty: string) {
  const { above = -Infinity, from = -Infinity, to = Infinity } = range;
  const bounds =
    range.above !== undefined
      ? ` above ${above}`
      : range.from !== undefined
        ? ` from ${from}${range.to === undefined ? ' on' : ` to ${to}`}`
        : '';
  const said = `The ${label} must be a number${bounds}.`;
  const within = (value: number) => value > above && value >= from && value <= to && Math.abs(value) <= GREATEST;
  const schema = z.number(said).refine(within, said).optional();
  return { schema, field: { field, label, type: 'number', ...range, empty } } as const satisfies Setting<typeof schema>;
}

/** Squares of what is greater cannot be held. */
const GREATEST = 1e150;
