import type { Explained } from '../../road/figure.js';

/** The columns of the shares within limits. */
export const SHARES_FIGURES = {
  found: {
    key: 'found',
    name: 'observed',
    meaning:
      'The number and proportion of readings within the limits (limits included), and the interval of the true proportion.',
    formula: 'k / n, interval by Clopper and Pearson',
    use: 'It assumes no distribution.',
  },
  expected: {
    key: 'expected',
    name: 'expected',
    meaning: 'The proportion within the limits according to the fitted distribution.',
    formula: 'F(upper) − F(lower)',
    use: 'For comparison. It describes the population only if the distribution fits.',
  },
  beyond: {
    key: 'beyond',
    name: 'below · above',
    meaning: 'The number of readings below and above the limits.',
    formula: 'count',
  },
} as const satisfies Record<string, Explained>;
