import { centralMoments } from '../../numeric/sums.js';
import { drawnRanks } from '../../probability-plot/sheet-cell.js';
import { NO_READINGS, type Sample } from '../../readings/sample.js';
import type { Note, Unavailable } from '../../road/analysis.js';
import { whyCensored } from '../../road/beyond-limits.js';
import { leftOutNotes, unavailable, whyEmpty, whyNotEven } from '../../road/cautions.js';
import type { Alternative } from '../../claims/alternative.js';
import type { ClaimGroup, ClaimResult } from './claim-result.js';
import type { TypedFigures } from './claim-settings.js';
import { claimNotes } from './claim-words.js';

/** What a claim is tested on: readings, or typed figures. */
export interface Source {
  name: string;
  unit: string;
  resolution: number | null;
  n: number;
  mean: number;
  /** Null for a single reading. */
  sd: number | null;
  /** Null for typed figures. */
  values: Float64Array | null;
}

/** What every result is put together from. */
export interface Head {
  typed: boolean;
  n: number;
  missing: number;
  setAside: number;
  unit: string;
  resolution: number | null;
  /** Said of the readings, before what is said of the result. */
  notes: Note[];
}

export const sourceOf = ({ name, unit, resolution, values }: Sample): Source => {
  const { n, mean, s2 } = centralMoments(values);
  return { name, unit, resolution, n, mean, sd: n > 1 ? Math.sqrt(s2 / (n - 1)) : null, values };
};

export const headOf = (sample: Sample): Head => ({
  typed: false,
  n: sample.values.length,
  missing: sample.missing,
  setAside: sample.setAside,
  unit: sample.unit,
  resolution: sample.resolution,
  notes: leftOutNotes(sample),
});

/** The head of what was typed. */
export const typedHead = (n: number): Head => ({
  ...{ typed: true, n, missing: 0, setAside: 0, unit: '', resolution: null },
  notes: [],
});

interface Asked {
  column?: string | undefined;
  figures?: TypedFigures | undefined;
}

/** A sample, or typed figures, for a claim about one column of numbers; or why there is none. */
export function oneSource(
  sample: Sample,
  { column, figures }: Asked,
  { least, purpose, spread = false }: { least: number; purpose: string; spread?: boolean },
): { source: Source; head: Head } | Unavailable {
  if (figures) {
    const { n, mean, sd } = figures;
    const reason =
      n < least
        ? `n is ${n}; ${purpose} needs at least ${least}.`
        : spread && sd === 0
          ? `The typed standard deviation is 0; ${purpose} needs readings that vary.`
          : null;
    if (reason) return unavailable(NO_READINGS, reason);
    const source: Source = { name: 'the readings', unit: '', resolution: null, n, mean, sd, values: null };
    return { source, head: typedHead(n) };
  }
  if (column === undefined) return unavailable(sample, 'Choose a column of readings, or type the figures.');
  const reason =
    whyNotEven(sample, least, purpose) ?? whyCensored(sample, purpose) ?? whyNoSpread(sample, purpose, spread);
  return reason ? unavailable(sample, reason) : { source: sourceOf(sample), head: headOf(sample) };
}

/** Why readings without spread cannot be used, if a spread is needed. */
export function whyNoSpread({ values, name }: Sample, purpose: string, spread: boolean): string | null {
  if (!spread || values.some((x) => x !== values[0])) return null;
  return `All ${values.length} readings of ${name} are equal; ${purpose} needs readings that vary.`;
}

/** The groups of a sample that hold readings, each good enough; why not. */
export function groupsOf(
  sample: Sample,
  { least, purpose, censored = false }: { least: number; purpose: string; censored?: boolean },
): Sample[] | Unavailable {
  const filled = (sample.groups?.samples ?? []).filter(({ values }) => values.length > 0);
  if (filled.length === 0) return unavailable(sample, whyEmpty(sample));
  for (const part of filled) {
    const reason = whyNotEven(part, least, purpose) ?? (censored ? null : whyCensored(part, purpose));
    if (reason) return unavailable(sample, reason);
  }
  return filled;
}

const MOST_DOTS = 300;

/** Readings to be drawn, in order. */
export function dotsOf(values: ArrayLike<number>): number[] {
  const sorted = Float64Array.from(values).sort();
  return drawnRanks(sorted.length, MOST_DOTS, 20).map((rank) => sorted[rank]!);
}

/** What is left out of a result: the rest has these. */
type Usual = Omit<
  ClaimResult,
  'available' | keyof Head | 'alpha' | 'confidence' | 'alternative' | 'null' | 'sought' | 'method' | 'measured'
>;
const USUAL: Usual = {
  ...{ as: 'reading', claimed: null, estimate: null, difference: null, standardised: null },
  ...{
    symbol: '',
    statistic: null,
    df: null,
    pValue: null,
    pMethod: 'asymptotic',
    pSimulated: null,
    pAsymptotic: null,
    pExact: null,
  },
  ...{ interval: null, intervalOf: '', power: null, smallestNoticeable: null, closeness: null },
  ...{ assumptions: [], law: null, draws: null, groups: [] as ClaimGroup[], cells: [], pairs: [], extras: [] },
};

type Needed = Pick<ClaimResult, 'null' | 'sought' | 'method' | 'measured'>;

/** A result out of its parts, with what is to be said of it. */
export function claimResult(
  head: Head,
  { alpha, confidence, alternative }: { alpha: number; confidence: number; alternative: Alternative },
  own: Needed & Partial<Usual>,
  more: readonly Note[] = [],
): ClaimResult {
  const result: ClaimResult = { available: true, ...USUAL, ...head, alpha, confidence, alternative, ...own, notes: [] };
  return { ...result, notes: [...head.notes, ...more, ...claimNotes(result)] };
}
