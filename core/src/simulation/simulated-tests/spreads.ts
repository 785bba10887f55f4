import { pOfTails } from '../../claims/alternative.js';
import { brownForsythe, spreadByChiSquare, spreadsByF } from '../../claims/spreads.js';
import { momentsOf } from '../moments.js';
import type { SimulatedTest, TestOf, TestSetting } from './simulated-test.js';

const sdIn = (figures: Float64Array) => (values: Float64Array) => {
  momentsOf(values, 0, values.length, figures);
  return Math.sqrt(figures[1]! / (values.length - 1));
};

function chiSquare({ sizes: [n], alternative, claim }: TestSetting): TestOf {
  const sdOf = sdIn(new Float64Array(2));
  return ([values], into) => {
    const found = spreadByChiSquare(n!, sdOf(values!), claim.sd);
    into[0] = pOfTails(found.tails, alternative);
    into[1] = found.statistic;
  };
}

function twoSds({ alternative }: TestSetting): TestOf {
  const sdOf = sdIn(new Float64Array(2));
  return ([a, b], into) => {
    const [first, second] = [a!, b!].map((values) => ({ n: values.length, sd: sdOf(values) }));
    if (!(first!.sd > 0 && second!.sd > 0)) return void into.fill(NaN, 0, 2);
    const found = spreadsByF(first!, second!);
    into[0] = pOfTails(found.tails, alternative);
    into[1] = found.statistic;
  };
}

const medianDistances = (): TestOf => (samples, into) => {
  const { statistic, pValue } = brownForsythe(samples);
  const known = Number.isFinite(statistic);
  into[0] = known ? pValue : NaN;
  into[1] = known ? statistic : NaN;
};

export const SPREADS: readonly SimulatedTest[] = [
  {
    ...{
      id: 'chi-square',
      short: 'χ²',
      name: 'χ² test of the standard deviation',
      symbol: 'χ²',
      about: 'sd',
      groups: 1,
    },
    ...{ least: 2, sided: true, cost: 30 },
    make: chiSquare,
  },
  {
    ...{
      id: 'f',
      short: 'F',
      name: 'F test of two standard deviations',
      symbol: 'F',
      about: 'two',
      groups: 2,
      least: 2,
      sided: true,
      cost: 30,
    },
    make: twoSds,
  },
  {
    ...{
      id: 'brown-forsythe',
      short: 'Brown–Forsythe',
      name: 'Brown–Forsythe test of two standard deviations',
      symbol: 'F',
      about: 'two',
      groups: 2,
    },
    ...{ least: 2, sided: false, cost: 30 },
    make: medianDistances,
  },
];
