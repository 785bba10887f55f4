import { formatPercent, formatPercentOf, groupThousands } from '../../numeric/format.js';
import type { Piece } from '../../road/analysis.js';
import type { FoundFigure } from '../../road/figure.js';
import type { PlanResult } from './plan-result.js';

export function planFinding(result: PlanResult): Piece[] {
  const { n, power, wanted, name, exact, groups, atLeast, atMost, most, claim, effect } = result;
  const noticed = effect ?? `that what is claimed, ${claim}, is not so`;
  const each = groups === 2 ? ' in each group' : '';
  if (n === null)
    return most === null
      ? []
      : [
          {
            text: `Not even ${groupThousands(most)} readings${each} are enough for the ${name} to notice ${noticed} ${formatPercent(wanted)} of the time.`,
          },
        ];
  const range =
    result.drawn !== undefined
      ? ` The number is rough: the search ended after ${groupThousands(Math.round(result.drawn / 1e6))} million simulated readings.${atLeast === null ? '' : ` Fewer than ${groupThousands(atLeast)} are too few.`}`
      : exact || atLeast === null || atMost === null || atLeast >= atMost
        ? ''
        : ` The simulation leaves ${groupThousands(atLeast)} to ${groupThousands(atMost)} open.`;
  return [
    { text: `${groupThousands(n)} readings${each}`, strong: true, code: 'n-needed' },
    {
      text: ` are needed: of so many the ${name} notices ${noticed} in ${formatPercentOf(power!, 1 - power!, 3)} of samples${exact ? ', exactly' : ''}.${range}`,
    },
  ];
}

export const PLANNED_COLUMNS = ['chance', 'from', 'to'];
export const planFigures = ({ tried }: PlanResult): FoundFigure[] =>
  tried.map(({ n, power, lower, upper }) => ({
    ...{ key: String(n), name: `n = ${groupThousands(n)}`, note: '', formula: '' },
    meaning: 'How often the test has a p below the level with so many readings.',
    texts: [power, lower, upper].map((x) => (x === null ? 'exact' : formatPercentOf(x, 1 - x, 3))),
  }));
export const planTable = ({ tried }: PlanResult): (string | number)[][] => [
  ['n', 'chance', 'lower', 'upper', 'samples'],
  ...tried.map(({ n, power, lower, upper, replicates }) => [n, power, lower ?? '', upper ?? '', replicates]),
];
