import { isUnavailable } from '../../core/src/road/analysis.ts';
import type { OutlyingGroupsResult } from '../../core/src/analyses/outliers/outlying-groups-result.ts';
import type { Found, StatementKind } from './kind.ts';
import { codesOf, drawn, inGroups, NORMAL, ran } from './samples.ts';

/** Analyses that may find something in one column of clean normal readings. */
const OF_ONE = [
  ['normality', { replicates: 499 }],
  ['goodness-of-fit', { family: 'normal', replicates: 199 }],
  ['outliers', { replicates: 499 }],
  ['mean-claim', { claimed: 10 }],
  ['spread-claim', { claimed: 1 }],
  ['median-claim', { claimed: 10 }],
  ['mean-and-sd-claim', { claimed: 10, claimedSd: 1 }],
  ['describe', {}],
  ['in-order', {}],
] as const;
/** Simulated for a tenth of a second and more: not in the slice, since tests of their own hold their level; fewer cases and samples in the matrix. */
const SLOW: Record<string, { sizes: readonly number[]; steps: readonly number[]; samples: number }> = {
  normality: { sizes: [10, 30], steps: [0, 1], samples: 100 },
  'goodness-of-fit': { sizes: [10, 30], steps: [0, 1], samples: 100 },
  outliers: { sizes: [3, 10, 30, 100], steps: [0, 1], samples: 100 },
};
const SAMPLES = 150;
const FEW = 10;
const OF_GROUPS = [
  ['several-means', { replicates: 499 }],
  ['several-medians', { replicates: 499 }],
  ['several-spreads', {}],
  ['outlying-groups', { replicates: 499 }],
] as const;
const STEPS = [0, 0.5, 1, 2];
const SIZES = [2, 3, 5, 10, 30, 100];
const DESIGNS = [
  [2, 2],
  [3, 3],
  [5, 5],
  [10, 2],
  [20, 5],
] as const;

/** These ask for a claim that rounding makes untrue: the sd of rounded readings is not that of the population. */
const NOT_ROUNDED = new Set(['spread-claim', 'mean-and-sd-claim', 'several-spreads']);

export const evidence: StatementKind = {
  code: 'evidence',
  notes: [
    'zero-inflated',
    'underdispersed',
    'tests-differ',
    'masking',
    'swamping',
    'asymmetrical',
    'lopsided',
    'uneven',
  ],
  falseWhen:
    'a clean sample, in which what is claimed holds, is reported to show a departure, a difference or an outlier',
  how: 'clean normal samples, fine and rounded, through every analysis that may find something; at level 0.05',
  allowed: 0.06,
  async measure(thorough) {
    const found: Found[] = [];
    const counted = async (
      id: string,
      request: object,
      name: string,
      make: (seed: number) => ReturnType<typeof drawn>,
    ) => {
      const samples = thorough > 1 ? (SLOW[id]?.samples ?? SAMPLES) : make(1).groups ? FEW / 2 : FEW;
      let [wrong, of] = [0, 0];
      for (let seed = 1; seed <= samples; seed++) {
        const sample = make(seed);
        const result = await ran<object>(id, sample, sample.groups ? { split: 'kiln', ...request } : request);
        if (isUnavailable(result)) continue;
        // Two tests, each said to be at the level: two statements.
        const tests = id === 'outlying-groups' ? (result as OutlyingGroupsResult).tests : null;
        of += tests?.length ?? 1;
        wrong +=
          tests?.filter(({ group }) => group !== null).length ?? Number(codesOf(id, result).includes('evidence'));
      }
      if (of > 0) found.push({ case: `${id}, ${name}`, false: wrong, of });
    };
    for (const [id, request] of OF_ONE) {
      if (SLOW[id] && thorough === 1) continue;
      const { sizes, steps } =
        SLOW[id] ?? (thorough > 1 ? { sizes: SIZES, steps: STEPS } : { sizes: [30], steps: [0, 1] });
      for (const n of sizes)
        for (const step of NOT_ROUNDED.has(id) ? [0] : steps)
          await counted(id, request, `n = ${n}, step ${step}`, (seed) => drawn('normal', NORMAL, n, seed, step));
    }
    for (const [id, request] of OF_GROUPS)
      for (const [k, n] of thorough > 1 ? DESIGNS : [[3, 3] as const])
        await counted(id, request, `${k} groups of ${n}`, (seed) =>
          inGroups(drawn('normal', NORMAL, k * n, 100 + seed), k),
        );
    return found;
  },
};
