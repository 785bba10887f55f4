import { andersonDarling } from '../core/src/goodness-of-fit/normality/anderson-darling.js';
import { tallyTransformed } from '../core/src/goodness-of-fit/transformed.js';
import { centralMoments } from '../core/src/numeric/sums.js';
import { fillNormals } from '../core/src/random/normal.js';
import { createStream } from '../core/src/random/stream.js';
import { bendable, bentWith, foundLambda } from '../core/src/transform/lambda.js';
import { turnedBack, type PowerTransformation } from '../core/src/transform/transformation.js';
import { report } from './report.ts';

const LEVEL = 0.05;
const SAMPLES = 1_000;
const REPLICATES = 199;
const CONFIDENCE = 0.95;

/** How often the test after a power transformation rejects readings that are normal once transformed, lambda found as the page finds it. */
export function calibrateTransformations(): boolean {
  let holds = true;
  for (const power of ['box-cox', 'yeo-johnson'] as const)
    for (const choice of ['likeliest', 'convenient'] as const)
      for (const n of [8, 20, 50]) holds = rejections(power, choice, n) && holds;
  return holds;
}

function rejections(power: PowerTransformation, choice: 'likeliest' | 'convenient', n: number): boolean {
  const [trueLambda, mean, sd] = power === 'box-cox' ? [0, 2, 0.5] : [0.5, 1, 1.5];
  let rejected = 0;
  const stream = createStream(17, n);
  const scores = new Float64Array(n);
  for (let k = 0; k < SAMPLES; k++) {
    fillNormals(stream, scores);
    // A draw beyond the end of the power is bent back to it.
    const values = scores.map((z) => {
      const x = turnedBack(power, trueLambda, mean + sd * z);
      return Number.isNaN(x) ? 0 : x;
    });
    const found = foundLambda(power, values, CONFIDENCE);
    const lambda = choice === 'convenient' ? (found.convenient ?? found.likeliest) : found.likeliest;
    const seen = bendable(power, values);
    const bends = new Float64Array(n);
    bentWith(seen, lambda, bends);
    bends.sort();
    const { mean: centre, s2 } = centralMoments(bends);
    const spread = Math.sqrt(s2 / (n - 1));
    const law = {
      power,
      n,
      lambda,
      centre: seen.centre,
      mirrored: seen.mirrored !== null,
      mean: centre,
      sd: spread,
      choice,
      confidence: CONFIDENCE,
    };
    const observed = andersonDarling(bends, centre, spread);
    const [far] = tallyTransformed({ ...law, step: null, observed }, createStream(k, 1), REPLICATES);
    if ((far! + 1) / (REPLICATES + 1) <= LEVEL) rejected++;
  }
  return report(`rejected after ${power}, ${choice}, n = ${n}`, rejected, SAMPLES, LEVEL, true);
}
