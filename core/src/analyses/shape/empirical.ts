import { z } from 'zod';
import { stepsOf, type Steps } from '../../describe/empirical.js';
import { formatFigure } from '../../numeric/format.js';
import { plural } from '../../numeric/grammar.js';
import { medianOfSorted } from '../../describe/quantiles.js';
import { defineAnalysis, isUnavailable } from '../../road/analysis.js';
import { groupSettings, subjectWords } from '../../road/groups.js';
import {
  curveChoice,
  curveNotes,
  fittedCurve,
  pictured,
  type FittedCurve,
  type Picture,
  pictureSettings,
  AXIS_PARTS,
} from './picture.js';
import { columnSetting } from '../../road/settings.js';

const curve = curveChoice('fitted distribution', 'normal');

const request = z.strictObject({
  column: columnSetting,
  ...groupSettings,
  curve: curve.schema,
  ...pictureSettings,
});
export type EmpiricalRequest = z.infer<typeof request>;

export interface EmpiricalPart extends Steps {
  median: number;
  curve: FittedCurve;
}
export type EmpiricalResult = Picture<EmpiricalPart>;

/** The proportion of readings at or below each value, as steps (STATISTICS section 2). */
export const empiricalAnalysis = defineAnalysis<EmpiricalRequest, EmpiricalResult>({
  id: 'empirical',
  version: 1,
  name: 'Empirical distribution',
  title: 'the proportion of readings at or below each value, with a fitted distribution',
  request,
  method: ['Empirical distribution of ', { subject: true }, ' with ', curve.field, ...AXIS_PARTS],
  subject: subjectWords,
  resolve: (settings) => settings,
  *run(asked, sample) {
    const found = pictured(
      sample,
      asked,
      () => null,
      (part): EmpiricalPart => {
        const sorted = part.values.slice().sort();
        return { ...stepsOf(sorted), median: medianOfSorted(sorted), curve: fittedCurve(part, asked.curve) };
      },
    );
    if (isUnavailable(found)) return found;
    const { picture } = found;
    return { ...picture, notes: [...picture.notes, ...curveNotes(picture.parts, picture.grouped)] };
  },
  finding: ({ parts, n, unit, resolution, grouped }) => {
    const { median, values } = parts[0]!;
    if (grouped)
      return [{ text: `${plural(n, 'reading')}, ${parts.length} empirical distributions on a common axis.` }];
    const of = unit ? `\u00a0${unit}` : '';
    return [
      { text: 'Half of the readings are at or below ' },
      { text: `${formatFigure(median, 'location', resolution)}${of}`, strong: true, code: 'figure' },
      { text: `; ${plural(values.length, 'different value')} in ${plural(n, 'reading')}.` },
    ];
  },
});
