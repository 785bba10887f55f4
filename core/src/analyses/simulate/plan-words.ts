import { formatPercent, formatPercentOf, groupThousands } from '../../numeric/format.js';
import { plural } from '../../numeric/grammar.js';
import type { Piece } from '../../road/analysis.js';
import type { FoundFigure } from '../../road/figure.js';
import type { PlanResult } from './plan-result.js';

export function planFinding(result: PlanResult): Piece[] {
  const { n, power, wanted, name, exact, groups, atLeast, atMost, most, claim, effect } = result;
  const noticed = effect ?? `that the claim (${claim}) is false`;
  const each = groups === 2 ? ' in each group' : '';
  if (n === null)
    return most === null
      ? []
      : [
          {
            text: `With ${groupThousands(most)} readings${each}, the ${name} does not reach ${formatPercent(wanted)} power to detect ${noticed}.`,
          },
        ];
  const range =
    result.drawn !== undefined
      ? ` The number is approximate, because the search ended after ${groupThousands(Math.round(result.drawn / 1e6))} million simulated readings.${atLeast === null ? '' : ` At least ${groupThousands(atLeast)} are needed.`}`
      : exact || atLeast === null || atMost === null || atLeast >= atMost
        ? ''
        : ` Simulation uncertainty: ${groupThousands(atLeast)} to ${groupThousands(atMost)}.`;
  return [
    { text: 'You need ' },
    { text: `${plural(n, 'reading')}${each}`, strong: true, code: 'n-needed' },
    {
      text: `. With ${groupThousands(n)}, the ${name} detects ${noticed} in ${formatPercentOf(power!, 1 - power!, 3)} of samples${exact ? ' (exact)' : ''}.${range}`,
    },
  ];
}

export const PLANNED_COLUMNS = ['power', 'lower', 'upper'];
export const planFigures = ({ tried }: PlanResult): FoundFigure[] =>
  tried.map(({ n, power, lower, upper }) => ({
    ...{ key: String(n), name: `n = ${groupThousands(n)}`, note: '', formula: '' },
    meaning: 'The power of the test at this sample size.',
    texts: [power, lower, upper].map((x) => (x === null ? 'exact' : formatPercentOf(x, 1 - x, 3))),
  }));
export const planTable = ({ tried }: PlanResult): (string | number)[][] => [
  ['n', 'power', 'lower', 'upper', 'samples'],
  ...tried.map(({ n, power, lower, upper, replicates }) => [n, power, lower ?? '', upper ?? '', replicates]),
];
