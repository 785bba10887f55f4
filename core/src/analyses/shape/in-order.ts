import { detectableDrift } from '../../claims/power-of-drift.js';
import { z } from 'zod';
import { driftOf, type Drift } from '../../describe/drift.js';
import { describe } from '../../describe/describe.js';
import { equalsP, formatFigure, formatValue } from '../../numeric/format.js';
import { plural } from '../../numeric/grammar.js';
import { holm } from '../../numeric/holm.js';
import { ordered } from '../../numeric/ordered.js';
import { defineAnalysis, isUnavailable, type Piece } from '../../road/analysis.js';
import { unavailable } from '../../road/cautions.js';
import { groupSettings, subjectWords } from '../../road/groups.js';
import { pictured, type Picture, pictureSettings, AXIS_PARTS } from './picture.js';
import { alphaSetting, columnSetting } from '../../road/settings.js';

const request = z.strictObject({ column: columnSetting, ...groupSettings, alpha: alphaSetting, ...pictureSettings });
export type InOrderRequest = z.infer<typeof request>;

export interface InOrderPart {
  /** Rows from 1, and the reading in each. */
  rows: number[];
  values: number[];
  mean: number;
  sd: number | null;
  drift: Drift | null;
}
export interface InOrderResult extends Picture<InOrderPart> {
  alpha: number;
}

/** Readings in row order, because order is the first thing that a histogram hides (STATISTICS section 2). */
export const inOrderAnalysis = defineAnalysis<InOrderRequest, InOrderResult>({
  id: 'in-order',
  version: 3,
  name: 'Readings in order',
  title: 'readings in row order, with a test for drift',
  request,
  method: ['Plot ', { subject: true }, ' in row order with its mean and limits', ...AXIS_PARTS],
  subject: subjectWords,
  resolve: (settings) => settings,
  *run(asked, sample) {
    if (sample.tallied) {
      return unavailable(sample, `${sample.name} was entered as frequencies, so it has no row order.`);
    }
    const found = pictured(
      sample,
      asked,
      () => null,
      ({ values, rows, resolution }): InOrderPart => {
        const { mean, sd } = describe(values, resolution);
        return { rows: Array.from(rows), values: Array.from(values), mean, sd, drift: driftOf(ordered(values)) };
      },
    );
    return isUnavailable(found) ? found : { ...found.picture, alpha: asked.alpha };
  },
  finding: (result): Piece[] => {
    const { parts, n, alpha, grouped } = result;
    if (grouped) return partsFinding(parts, alpha);
    const { drift } = parts[0]!;
    if (!drift) return [{ text: `${plural(n, 'reading')} in row order; too few different values to test for drift.` }];
    const p = equalsP(drift.pValue, alpha);
    const figure = `rank correlation ${formatFigure(drift.correlation, 'statistic')}, ${p}`;
    if (drift.pValue >= alpha)
      return [
        { text: 'No evidence of a drift in row order', strong: true, code: 'no-evidence' },
        { text: ` (${figure}).${couldDetect(result)}` },
      ];
    const way = drift.correlation > 0 ? 'rise' : 'fall';
    const alone = `single test at significance level ${formatValue(alpha)}`;
    return [
      { text: `The readings ${way} in row order`, strong: true, code: 'evidence' },
      { text: ` (${figure}; ${alone}).` },
    ];
  },
});

/** The drift that this number of readings detects. */
function couldDetect({ parts, n, alpha, unit }: InOrderResult): string {
  const rise = detectableDrift(n, alpha);
  const { sd } = parts[0]!;
  if (rise === null || sd === null) return '';
  const size = `${formatValue(Number((rise * sd).toPrecision(2)))}${unit ? ` ${unit}` : ''}`;
  return ` A drift of ${size} from the first row to the last would be detected with 80\u00a0% power.`;
}

/** The parts that drift, adjusted for all that can be tested. */
function partsFinding(parts: readonly (InOrderPart & { name: string })[], alpha: number): Piece[] {
  const asked = parts.flatMap(({ name, drift }) => (drift ? [{ name, drift }] : []));
  if (asked.length === 0) return [{ text: 'No group has enough different values to test for drift.' }];
  const passed = holm(
    asked.map(({ drift }) => drift.pValue),
    alpha,
  );
  const moving = asked.filter((_, i) => passed[i]);
  const among = `significance level ${formatValue(alpha)}, adjusted for ${plural(asked.length, 'test')}`;
  if (moving.length === 0)
    return [
      { text: 'No evidence of a drift in row order in any group', strong: true, code: 'no-evidence' },
      { text: ` (${among}).` },
    ];
  const words = moving.map(({ name, drift }) => `${name} ${drift.correlation > 0 ? 'rises' : 'falls'}`);
  return [
    { text: `Drift in row order: ${words.join(', ')}`, strong: true, code: 'evidence' },
    { text: ` (${among}).` },
  ];
}
