/** What somebody in a hurry would write: the same draws and the same equations in one loop, with the core's special functions. */
import { digamma } from '../core/src/numeric/digamma.js';
import { exp, expm1, log, power } from '../core/src/numeric/elementary.js';
import { gammaLower } from '../core/src/numeric/gamma-tails.js';
import { trigamma } from '../core/src/numeric/trigamma.js';
import { fillGammas } from '../core/src/random/gamma.js';
import { createStream, nextOpenUnit } from '../core/src/random/stream.js';

function andersonDarling(u: Float64Array): number {
  const n = u.length;
  let sum = 0;
  for (let i = 0; i < n; i++) sum += (2 * i + 1) * (log(u[i]!) + log(1 - u[n - 1 - i]!));
  return -n - sum / n;
}

export function comparePlainGamma(n: number, replicates: number): number {
  const stream = createStream(1, 0);
  const x = new Float64Array(n);
  const u = new Float64Array(n);
  let far = 0;
  for (let r = 0; r < replicates; r++) {
    fillGammas(stream, 2, x);
    x.sort();
    let sum = 0;
    let logs = 0;
    for (let i = 0; i < n; i++) {
      sum += x[i]!;
      logs += log(x[i]!);
    }
    const gap = log(sum / n) - logs / n;
    let a = (3 - gap + Math.sqrt((gap - 3) ** 2 + 24 * gap)) / (12 * gap);
    for (let k = 0; k < 5; k++) a = 1 / (1 / a + (log(a) - digamma(a) - gap) / (a * a * (1 / a - trigamma(a))));
    for (let i = 0; i < n; i++) u[i] = gammaLower(a, (x[i]! * a * n) / sum);
    if (andersonDarling(u) >= 1) far++;
  }
  return far;
}

export function comparePlainWeibull(n: number, replicates: number): number {
  const stream = createStream(1, 0);
  const x = new Float64Array(n);
  const u = new Float64Array(n);
  let far = 0;
  for (let r = 0; r < replicates; r++) {
    for (let i = 0; i < n; i++) x[i] = Math.sqrt(-log(nextOpenUnit(stream)));
    x.sort();
    const logs = x.map(log);
    const mean = logs.reduce((a, b) => a + b) / n;
    let k = 1.28 / Math.sqrt(logs.reduce((s, v) => s + (v - mean) ** 2, 0) / n);
    for (let step = 0; step < 6; step++) {
      let [s0, s1, s2] = [0, 0, 0];
      for (let i = 0; i < n; i++) {
        const w = exp(k * logs[i]!);
        s0 += w;
        s1 += w * logs[i]!;
        s2 += w * logs[i]! * logs[i]!;
      }
      k -= (s1 / s0 - 1 / k - mean) / (s2 / s0 - (s1 / s0) ** 2 + 1 / (k * k));
    }
    const scale = power(x.reduce((s, v) => s + power(v, k), 0) / n, 1 / k);
    for (let i = 0; i < n; i++) u[i] = -expm1(-power(x[i]! / scale, k));
    if (andersonDarling(u) >= 1) far++;
  }
  return far;
}
