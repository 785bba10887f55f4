import type { ProbabilityPlotResult } from '../../core/src/analyses/fit/plot-result.ts';
import type { Found, StatementKind } from './kind.ts';
import { drawn, ran } from './samples.ts';

const POPULATIONS: [string, Record<string, number>][] = [
  ['normal', { mean: 0, sd: 1 }],
  ['gamma', { shape: 2, scale: 1 }],
  ['uniform', { lower: 0, upper: 1 }],
];

export const pattern: StatementKind = {
  code: 'pattern',
  notes: ['coarse', 'ties', 'tied-ends'],
  falseWhen: 'a sample of the plotted family shows a pattern, or leaves the band over the whole plot',
  how: 'clean samples of three families, ends estimated too; the band also with steps of one SD',
  allowed: 0.06,
  async measure(thorough) {
    const found: Found[] = [];
    for (const [family, parameters] of POPULATIONS)
      for (const n of thorough > 1 ? [10, 30, 100] : [20]) {
        const of = 40 * thorough;
        let wrong = 0;
        for (let seed = 1; seed <= of; seed++) {
          const request = { family, band: 'none', replicates: 299 };
          const plot = await ran<ProbabilityPlotResult>(
            'probability-plot',
            drawn(family, parameters, n, seed),
            request,
          );
          if (plot.shapes!.length > 0) wrong++;
        }
        found.push({ case: `pattern, ${family}, n = ${n}`, false: wrong, of });
      }
    for (const step of thorough > 1 ? [0, 0.5, 1, 2] : [1]) {
      const of = 30 * thorough;
      let wrong = 0;
      for (let seed = 1; seed <= of; seed++) {
        const sample = drawn('normal', { mean: 10.3, sd: 1 }, 20, seed, step);
        const plot = await ran<ProbabilityPlotResult>('probability-plot', sample, { replicates: 500 });
        if ((plot.band?.outsideCount ?? 0) > 0) wrong++;
      }
      found.push({ case: `band, n = 20, step ${step}`, false: wrong, of });
    }
    return found;
  },
};
