import { z } from 'zod';
import { brownForsythe } from '../../claims/spreads.js';
import { sdInterval } from '../../describe/intervals.js';
import { f } from '../../distributions/families/f.js';
import { groupThousands } from '../../numeric/format.js';
import { centralMoments } from '../../numeric/sums.js';
import { openEnd } from '../../claims/alternative.js';
import { defineAnalysis, type SentencePart } from '../../road/analysis.js';
import { unavailable } from '../../road/cautions.js';
import { subjectWords } from '../../road/groups.js';
import { curveOf } from './claim-law.js';
import type { ClaimResult } from './claim-result.js';
import { ofInterval } from './claim-settings.js';
import { claimResult } from './claim-source.js';
import { formatQuantity, type Scale } from '../../road/formatted.js';
import { claimFinding } from './claim-words.js';
import { endsWords, severalBasis, severalGroups, severalWords } from './several-settings.js';

const { noticeable: _, ...basis } = severalBasis;
const request = z.strictObject(basis);
type Request = z.infer<typeof request>;

export const SEVERAL_SPREADS_CLAIM: readonly SentencePart[] = [
  'The standard deviations of ',
  { subject: true },
  ' are claimed to be equal; alternative: at least one differs.',
];
export const SEVERAL_SPREADS_METHOD: readonly SentencePart[] = [
  'Brown–Forsythe test, with confidence intervals of the standard deviations at ',
  ofInterval.field,
  '.',
];

/** Do the standard deviations of several groups differ. */
export const severalSpreadsAnalysis = defineAnalysis<Request, ClaimResult>({
  id: 'several-spreads',
  version: 2,
  name: 'Several standard deviations',
  title: 'do the standard deviations of several groups differ (Brown–Forsythe)',
  request,
  method: [...SEVERAL_SPREADS_CLAIM, ' ', ...SEVERAL_SPREADS_METHOD],
  subject: subjectWords,
  resolve: (settings) => settings,
  *run(settings, sample) {
    const found = severalGroups(sample, { least: 2, purpose: 'a test of several standard deviations' });
    if ('available' in found) return found;
    const { groups, head } = found;
    const { alpha, confidence } = settings;
    const { statistic, df, pValue } = brownForsythe(groups.map(({ values }) => values));
    if (!Number.isFinite(statistic))
      return unavailable(
        sample,
        'All readings lie at the same distance from the median of their group, so the Brown–Forsythe test cannot be calculated.',
      );
    const scale: Scale = { ...head, as: 'reading' };
    const shown = groups.map(({ name, values }) => {
      const { n, s2 } = centralMoments(values);
      const sd = Math.sqrt(s2 / (n - 1));
      return {
        name,
        n,
        centre: sd,
        sd: null,
        dots: [],
        interval: sd > 0 ? openEnd(sdInterval(n, sd, confidence), 'two-sided') : null,
      };
    });
    return claimResult(
      { ...head, n: df[1] + groups.length },
      { alpha, confidence, alternative: 'two-sided' },
      {
        ...severalWords('the standard deviation', sample, groups),
        ...{ method: 'brown-forsythe', symbol: 'F', statistic, df: [...df], pValue, pMethod: 'asymptotic' },
        measured: endsWords(shown, (value) => formatQuantity(value, scale, 'spread')),
        assumptions: [
          {
            text: 'Normality: the Brown–Forsythe test hardly needs it; the intervals of the standard deviations do.',
            holds: true,
            instead: '',
          },
        ],
        law: curveOf(f.of({ df1: df[0], df2: df[1] }), {
          name: `F distribution with ${df[0]} and ${groupThousands(df[1])} degrees of freedom`,
          axis: 'F',
          statistic,
          alternative: 'greater',
          alpha,
        }),
        draws: { of: 'spreads', sizes: groups.map(({ values }) => values.length), method: 'brown-forsythe' },
        groups: shown,
      },
    );
  },
  finding: claimFinding,
});
