import type { Explained } from '../../road/figure.js';

/** The columns of the shares within limits. */
export const SHARES_FIGURES = {
  found: {
    key: 'found',
    name: 'found',
    meaning: 'How many readings lie within, the ends included, and where the true share may lie.',
    formula: 'k / n, interval by Clopper and Pearson',
    use: 'What was measured: it needs no distribution.',
  },
  expected: {
    key: 'expected',
    name: 'expected',
    meaning: 'The share within by the fitted distribution of the sentence below.',
    formula: 'F(upper) − F(lower)',
    use: 'To compare with what was found; it speaks of all that could be measured only if the distribution fits.',
  },
  beyond: {
    key: 'beyond',
    name: 'below · above',
    meaning: 'How many readings lie on either side.',
    formula: 'counted',
  },
} as const satisfies Record<string, Explained>;
