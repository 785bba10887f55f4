import { detectableDrift } from '../../claims/power-of-drift.js';
import { z } from 'zod';
import { driftOf, type Drift } from '../../describe/drift.js';
import { describe } from '../../describe/describe.js';
import { equalsP, formatFigure, formatValue, groupThousands } from '../../numeric/format.js';
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
  title: 'readings in row order about their mean, and whether they drift',
  request,
  method: ['Draw ', { subject: true }, ' in row order about the mean, with the limits of the column', ...AXIS_PARTS],
  subject: subjectWords,
  resolve: (settings) => settings,
  *run(asked, sample) {
    if (sample.tallied) {
      return unavailable(
        sample,
        `${sample.name} is counted out from frequencies: a tally has no order of rows to look at.`,
      );
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
    if (!drift) return [{ text: `${groupThousands(n)} readings in row order, too few or too equal to tell a drift.` }];
    const p = equalsP(drift.pValue, alpha);
    const figure = `rank correlation with the row ${formatFigure(drift.correlation, 'statistic')}, ${p}`;
    if (drift.pValue >= alpha)
      return [
        { text: 'No evidence of a drift over the rows', strong: true, code: 'no-evidence' },
        { text: ` (${figure}).${couldDetect(result)}` },
      ];
    const way = drift.correlation > 0 ? 'rise' : 'fall';
    const alone = `asked alone at the level ${formatValue(alpha)}, not as one of several looks`;
    return [
      { text: `Over the rows the readings ${way}`, strong: true, code: 'evidence' },
      { text: ` (${figure}; ${alone}).` },
    ];
  },
});

/** Which drift so many readings would have shown. */
function couldDetect({ parts, n, alpha, unit }: InOrderResult): string {
  const rise = detectableDrift(n, alpha);
  const { sd } = parts[0]!;
  if (rise === null || sd === null) return '';
  const size = `${formatValue(Number((rise * sd).toPrecision(2)))}${unit ? ` ${unit}` : ''}`;
  return ` A rise or fall of ${size} from the first row to the last would be detected 80\u00a0% of the time.`;
}

/** The parts that drift, at the level shared among all that can be asked. */
function partsFinding(parts: readonly (InOrderPart & { name: string })[], alpha: number): Piece[] {
  const asked = parts.flatMap(({ name, drift }) => (drift ? [{ name, drift }] : []));
  if (asked.length === 0) return [{ text: 'In no part enough different readings to tell a drift over the rows.' }];
  const passed = holm(
    asked.map(({ drift }) => drift.pValue),
    alpha,
  );
  const moving = asked.filter((_, i) => passed[i]);
  const among = `the level ${formatValue(alpha)} is shared among ${asked.length} parts`;
  if (moving.length === 0)
    return [
      { text: 'No evidence of a drift over the rows in any part', strong: true, code: 'no-evidence' },
      { text: ` (${among}).` },
    ];
  const words = moving.map(({ name, drift }) => `${name} ${drift.correlation > 0 ? 'rises' : 'falls'}`);
  return [{ text: `Over the rows ${words.join(', ')}`, strong: true, code: 'evidence' }, { text: ` (${among}).` }];
}
