import { powerOfShare } from '../../core/src/claims/power-of-shares.ts';
import { readingsFromWhichOn } from '../../core/src/claims/noticing.ts';
import { exactPowerOfTwoShares } from '../../core/src/claims/power-of-two-shares.ts';
import type { Found, StatementKind } from './kind.ts';

export const nNeeded: StatementKind = {
  code: 'n-needed',
  notes: ['planned'],
  falseWhen:
    'the power falls below the target at the reported n, or at any of the 200 beyond it; or one fewer would do',
  how: 'exact power of one and of two proportions at every n',
  allowed: 0,
  measure(thorough) {
    const found: Found[] = [];
    for (const claim of thorough > 1 ? [0.05, 0.1, 0.3, 0.5] : [0.1])
      for (const d of [0.1, 0.2]) {
        const power = (n: number) => powerOfShare(n, claim, claim + d, 0.05, 'two-sided');
        const told = readingsFromWhichOn(power, 400, 1);
        if (!told) continue;
        let wrong = 0;
        for (let n = told.always; n < told.always + 200; n++) if (power(n) < 0.8) wrong++;
        if (told.always > 1 && power(told.always - 1) >= 0.8 && told.always !== told.first) wrong++;
        found.push({ case: `proportion ${claim} against ${claim + d}`, false: wrong, of: 201 });
      }
    const exact = exactPowerOfTwoShares(0.05, 'two-sided');
    const two = (n: number) => exact([n, n], [0.7, 0.3]);
    const told = readingsFromWhichOn(two, 24, 2)!;
    let wrong = 0;
    for (let n = told.always; n < told.always + 20; n++) if (two(n) < 0.8) wrong++;
    found.push({ case: 'two proportions 0.7 and 0.3', false: wrong, of: 20 });
    return Promise.resolve(found);
  },
};
