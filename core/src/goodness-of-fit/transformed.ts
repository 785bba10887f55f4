import { exp, log, log1p } from '../numeric/elementary.js';
import { roundTo } from '../numeric/round-to.js';
import { centralMoments } from '../numeric/sums.js';
import { nextNormal } from '../random/normal.js';
import type { StreamState } from '../random/stream.js';
import { bentWith, convenientLambda, likeliestLambda, profileOf, type Bendable } from '../transform/lambda.js';
import { turnedBack, type PowerTransformation } from '../transform/transformation.js';
import { andersonDarling } from './normality/anderson-darling.js';

export interface TransformedTallies {
  power: PowerTransformation;
  n: number;
  /** The law that is drawn from: normal once it is bent with this λ, after `centre` is taken off the logarithms. */
  lambda: number;
  centre: number;
  mean: number;
  sd: number;
  /** How λ is found in each sample: as for the readings, or not at all. */
  choice: 'likeliest' | 'convenient' | 'given';
  confidence: number;
  /** The step that samples are rounded to. */
  step: number | null;
  /** A² of the transformed readings. */
  observed: number;
}

/** A tie that rounding in the last place has parted is still a tie. */
const TIE = 1e-10;
/** Samples that rounding has left without any spread say nothing: they count as far. */
const SPREADLESS = Infinity;
/** As close in λ, in its own steps, as A² can tell. */
const CLOSE = 1e-5;
/** Draws beyond the end of a power's range are drawn again. */
const MOST_DRAWS = 1_000;

/** Draws one reading: its logarithm as the power sees it, and whether it is mirrored. */
function drawer({ power, lambda, centre, mean, sd, step, choice }: TransformedTallies) {
  // A square root takes a reading that was rounded to 0.
  const takesZero = power === 'box-cox' && choice === 'given' && lambda > 0;
  return (state: StreamState): number => {
    for (let k = 0; k < MOST_DRAWS; k++) {
      const x = turnedBack(power, lambda, mean + sd * nextNormal(state));
      if (Number.isNaN(x)) continue;
      if (power === 'yeo-johnson') return step === null ? x : roundTo(x, step);
      if (step === null) return log(x);
      const rounded = roundTo(x * exp(centre), step);
      if (rounded > 0 || (takesZero && rounded === 0)) return log(rounded) - centre;
    }
    return 0;
  };
}

/** How many of so many samples of a law that is normal once transformed have at least this A², λ being found anew in each of them. */
export function tallyTransformed(input: TransformedTallies, state: StreamState, replicates: number): Float64Array {
  const { power, n, choice, confidence, observed } = input;
  const draw = drawer(input);
  const mirrored = power === 'yeo-johnson' ? new Array<boolean>(n).fill(false) : null;
  const drawn: Bendable = { logs: new Float64Array(n), centre: 0, mirrored };
  const bends = new Float64Array(n);
  let far = 0;
  for (let r = 0; r < replicates; r++) {
    for (let i = 0; i < n; i++) {
      const x = draw(state);
      drawn.logs[i] = mirrored ? log1p(Math.abs(x)) : x;
      if (mirrored) mirrored[i] = x < 0;
    }
    if (statisticOf(drawn, input.lambda, choice, confidence, bends) >= observed * (1 - TIE)) far++;
  }
  return Float64Array.of(far);
}

/** A² of readings after the λ that is found for them. */
function statisticOf(
  drawn: Bendable,
  lambda: number,
  choice: TransformedTallies['choice'],
  confidence: number,
  bends: Float64Array,
): number {
  const { logs } = drawn;
  if (logs.every((v, i) => v === logs[0] && drawn.mirrored?.[i] === drawn.mirrored?.[0])) return SPREADLESS;
  bentWith(drawn, lambdaOf(drawn, lambda, choice, confidence), bends);
  bends.sort();
  const { mean, s2 } = centralMoments(bends);
  return andersonDarling(bends, mean, Math.sqrt(s2 / (logs.length - 1)));
}

function lambdaOf(drawn: Bendable, lambda: number, choice: TransformedTallies['choice'], confidence: number): number {
  if (choice === 'given') return lambda;
  const profile = profileOf(drawn);
  const likeliest = likeliestLambda(profile, lambda, profile.step * CLOSE);
  return choice === 'likeliest' ? likeliest : (convenientLambda(profile, likeliest, confidence) ?? likeliest);
}
