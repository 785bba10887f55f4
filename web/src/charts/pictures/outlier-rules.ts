import {
  ARRANGEMENT_WORDS,
  hasLevel,
  RULE_FACTS,
  type Arrangement,
  type OutlierRulesResult,
} from '@verdict/core/analyses';
import { formatPercentOf } from '@verdict/core/format';
import { markerOf, type Mark, type Tone } from '../marks.js';
import type { Hit, Panels } from '../picture.js';

const SHARES = [0, 0.2, 0.4, 0.6, 0.8, 1];
const percent = (share: number) => formatPercentOf(share, undefined, 2);

/** The detection rate of each rule over the size of the outlier; rules of thumb dashed. */
export function outlierRulesPanels({ rules, alpha }: OutlierRulesResult, arrangement: Arrangement): Panels | null {
  const tried = rules.filter(({ power }) => power.some((one) => one.arrangement === arrangement));
  if (tried.length === 0) return null;
  const hits: Hit[] = [];
  const curves = tried.map(({ rule, falseAlarms, power }, i) => {
    const tone: Tone = { series: i };
    const marker = markerOf(i + Math.floor(i / 4));
    const points = [
      { shift: 0, share: falseAlarms!.share, said: 'false-alarm rate' },
      ...power
        .filter((one) => one.arrangement === arrangement)
        .map(({ shift, found }) => ({
          shift,
          share: found.share,
          said: `${ARRANGEMENT_WORDS[arrangement]}, ${shift} SD: found`,
        })),
    ];
    for (const { shift, share, said } of points)
      hits.push({
        panel: 0,
        x: [shift, shift],
        y: [share, share],
        words: `${RULE_FACTS[rule].title}: ${said} ${percent(share)}`,
      });
    const x = points.map(({ shift }) => shift);
    const y = points.map(({ share }) => share);
    // Clean samples ask something else: no line leads from them.
    const dash = hasLevel(rule) ? undefined : [4, 4];
    const marks: Mark[] = [
      { kind: 'line', x: x.slice(1), y: y.slice(1), tone, width: 1.8, ...(dash ? { dash } : {}) },
      { kind: 'points', x, y, tone, marker, radius: 4 },
    ];
    return { rule, tone, marker, dash, marks };
  });
  const level: Mark = {
    ...{ kind: 'rule', across: 'y', at: alpha, tone: 'ochre', dash: [6, 4], wordsAt: 'end' },
    words: `significance level ${alpha}`,
  };
  return {
    x: { from: -0.2, to: 6.2, title: 'shift in SDs (0: clean samples, false alarms)', whole: true },
    y: {
      ...{ from: 0, to: 1.03, title: 'found, % of samples' },
      ticks: SHARES.map((at) => ({ at, words: String(Math.round(at * 100)) })),
    },
    panels: [{ name: '', marks: [level, ...curves.flatMap(({ marks }) => marks)] }],
    hits,
    legend: curves.map(({ rule, tone, marker, dash }) => ({
      ...{ words: RULE_FACTS[rule].short, tone, marker },
      ...(dash ? { dash } : {}),
    })),
  };
}
