import type { z } from 'zod';
import type { Sample } from '../readings/sample.js';
import type { KernelOrder } from './kernels.js';
import type { StatementCode } from './statements.js';

export type { Note } from '../readings/note.js';

/** A sentence in pieces; strong pieces carry the finding, and say what kind of statement it is. */
export type Piece =
  { text: string; strong?: false; code?: StatementCode } | { text: string; strong: true; code: StatementCode };

/** A result that cannot be had, and why, in one sentence. */
export interface Unavailable {
  available: false;
  reason: string;
  n: number;
  missing: number;
  setAside: number;
}

export function isUnavailable(result: unknown): result is Unavailable {
  return typeof result === 'object' && result !== null && 'available' in result && result.available === false;
}

/** A word of the method sentence that the analyst can change. `label` is how the field is called where it cannot be seen. */
export type Field =
  | ({
      field: string;
      label: string;
      type: 'choice';
      options: readonly { value: string; text: string; group?: string }[];
    } & Shown)
  /** Several of them. */
  | ({
      field: string;
      label: string;
      type: 'choices';
      options: readonly { value: string; text: string; group?: string }[];
      most: number;
    } & Shown)
  | ({ field: string; label: string; type: 'whole'; min: number; max: number } & Shown)
  | ({ field: string; label: string; type: 'percent'; min: number; max: number; empty?: string } & Shown)
  /** Any number within what is given; left out it reads as `empty`. */
  | ({
      field: string;
      label: string;
      type: 'number';
      above?: number;
      from?: number;
      to?: number;
      whole?: boolean;
      empty: string;
    } & Shown)
  /** Several numbers; none reads as `empty`. */
  | ({ field: string; label: string; type: 'numbers'; min: number; max: number; empty: string } & Shown)
  /** The parameters of a family, in its order; none reads as `empty`. */
  | ({ field: string; label: string; type: 'parameters'; empty: string } & Shown)
  /** Words, such as a formula. */
  | ({ field: string; label: string; type: 'text'; most: number; empty: string } & Shown);

/** A setting that has this value, or one of these; 'undefined' where it is left out. */
export type Condition = { field: string; is: string | readonly string[] };

/** When a part of the sentence has a meaning; it is left out otherwise. */
export interface Shown {
  hideWhen?: Condition;
  /** All of them. */
  showWhen?: Condition | readonly Condition[];
}

export type SentencePart = string | Field | ({ subject: true } & Shown) | ({ text: string } & Shown);

/** What `run` hands out before it ends: the result as far as it is known, and the repeated work it still needs. */
export interface Step<Result> {
  partial: Result;
  orders: KernelOrder[];
}

/** The chunks of every order of a step, in the order asked: answers[order][chunk]. */
export type Answers = Float64Array[][];

/**
 * One road for every number: settings → request → run → result. `run` is pure: the same request and sample give the same bits.
 * It is a generator that yields once for each batch of repeated work, so that a runner can spread the chunks over workers.
 */
export interface Analysis<Request extends Settings = Settings, Result = unknown> {
  id: string;
  version: number;
  /** What its result is called: "Normality test". */
  name: string;
  /** What it does, in a few words, for lists and `--help`. */
  title: string;
  request: z.ZodType<Request>;
  /** The one sentence of the method: shown as fields, kept, printed. Where it changes with what is asked, the request tells its parts. */
  method: readonly SentencePart[] | MethodOf<Request>;
  /** The subject in the words of the sentence, where it is more than the column: "thickness by kiln". */
  subject?(request: Request): string;
  /** False where it can also work without a column: `run` gets an empty sample then. */
  needsReadings?: boolean;
  /** True where it can work with labels; it is given none otherwise. */
  takesLabels?: true;
  /** Fills in what depends on the readings (the replicates, by n); what it returns is kept with the evidence. */
  resolve(request: Request, sample: Sample): Request;
  run(request: Request, sample: Sample): Generator<Step<Result | Unavailable>, Result | Unavailable, Answers>;
  /**
   * What the result looks like after the chunks that are known by now (in their order, without those still under way): shown while the rest is
   * worked out, never kept. `partial` is that of the step.
   */
  glimpse?(request: Request, partial: Result, soFar: Answers): Result;
  /** The finding in one plain sentence. */
  finding(result: Result): Piece[];
}

/** Declared as a method, so that an analysis of a narrower request is one of any request. */
type MethodOf<Request> = { of(request: Request): readonly SentencePart[] }['of'];

export interface Settings {
  /** The column the readings come from; absent only where the analysis needs none. */
  column?: string | undefined;
}

/** An analysis whose request and result are known to nobody but itself. */
export type AnyAnalysis = Analysis<Settings, unknown>;

/** Keeps the id and result type of an analysis while checking it against the interface. */
export function defineAnalysis<Request extends Settings, Result>(
  analysis: Analysis<Request, Result>,
): Analysis<Request, Result> {
  return analysis;
}
