import { z } from 'zod';
import { describe, type Description } from '../describe/describe.js';
import { formatFigure } from '../numeric/format.js';
import type { Sample } from '../readings/sample.js';
import { defineAnalysis, type Note } from './analysis.js';
import { outOfScale, unavailable, unreadableNote, whyNot } from './cautions.js';
import { columnSetting } from './settings.js';

const request = z.strictObject({ column: columnSetting });

export interface DescribeResult extends Description {
  available: true;
  missing: number;
  setAside: number;
  resolution: number | null;
  unit: string;
  notes: Note[];
}

function notesFor(sample: Sample, { n, sd }: Description): Note[] {
  const notes = unreadableNote(sample);
  if (n === 1) notes.push({ code: 'one-reading', text: 'One reading has no spread: sd and shape are not given.' });
  else if (sd === 0)
    notes.push({ code: 'no-spread', text: 'All readings are equal: the shape figures are not given.' });
  return notes;
}

/** Centre, spread and shape of one column (STATISTICS section 1, the figures built so far). */
export const describeAnalysis = defineAnalysis<z.infer<typeof request>, DescribeResult>({
  id: 'describe',
  version: 1,
  name: 'Description',
  title: 'centre, spread, ends and shape of a column',
  request,
  method: ['Describe ', { subject: true }, '; sd with divisor n − 1, skewness and kurtosis adjusted for n.'],
  resolve: (settings) => settings,
  *run(_settings, sample) {
    const reason = sample.values.length === 0 ? whyNot(sample, 1, 'a description') : outOfScale(sample);
    if (reason) return unavailable(sample, reason);
    const figures = describe(sample.values, sample.resolution);
    const { missing, setAside, resolution, unit } = sample;
    return { available: true, ...figures, missing, setAside, resolution, unit, notes: notesFor(sample, figures) };
  },
  finding: ({ n, mean, sd, resolution, unit }) => {
    const of = unit ? `\u00a0${unit}` : '';
    const spread = sd === null ? '' : `, with an sd of ${formatFigure(sd, 'spread', resolution)}${of}`;
    const readings = n === 1 ? 'One reading stands at ' : `${n} readings centre at `;
    return [
      { text: readings },
      { text: `${formatFigure(mean, 'location', resolution)}${of}`, strong: true },
      { text: `${spread}.` },
    ];
  },
});
