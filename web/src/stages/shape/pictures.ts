import {
  boxAnalysis,
  dotsAnalysis,
  empiricalAnalysis,
  histogramAnalysis,
  inOrderAnalysis,
  stemAndLeafAnalysis,
  type BoxResult,
  type DotsResult,
  type EmpiricalResult,
  type HistogramResult,
  type InOrderResult,
  type StemAndLeafResult,
} from '@verdict/core/analyses';
import { boxPanels } from '../../charts/pictures/box.js';
import { dotsPanels } from '../../charts/pictures/dots.js';
import { histogramPanels } from '../../charts/pictures/histogram.js';
import { orderPanels } from '../../charts/pictures/in-order.js';
import { stepsPanels } from '../../charts/pictures/empirical.js';
import type { Setting } from '../../charts/value-axis.js';
import type { Panels } from '../../charts/picture.js';

/** The pictures of Shape, in the order of their words above the picture. */
export const PICTURES = [
  { id: 'histogram', title: 'Histogram', analysis: histogramAnalysis },
  { id: 'box', title: 'Box', analysis: boxAnalysis },
  { id: 'stem-and-leaf', title: 'Stem', analysis: stemAndLeafAnalysis },
  { id: 'empirical', title: 'Steps', analysis: empiricalAnalysis },
  { id: 'dots', title: 'Dots', analysis: dotsAnalysis },
  { id: 'in-order', title: 'In order', analysis: inOrderAnalysis },
] as const;
export type PictureId = (typeof PICTURES)[number]['id'];

/** A result of one of them, told apart by the id beside it. */
export type Shown =
  | { id: 'histogram'; result: HistogramResult }
  | { id: 'box'; result: BoxResult }
  | { id: 'stem-and-leaf'; result: StemAndLeafResult }
  | { id: 'empirical'; result: EmpiricalResult }
  | { id: 'dots'; result: DotsResult }
  | { id: 'in-order'; result: InOrderResult };

/** The picture of a result; null for leaves, which are text. */
export function panelsOf(shown: Shown, setting: Setting, chosen: ReadonlySet<number>): Panels | null {
  switch (shown.id) {
    case 'histogram':
      return histogramPanels(shown.result, setting, chosen);
    case 'box':
      return boxPanels(shown.result, setting);
    case 'empirical':
      return stepsPanels(shown.result, setting);
    case 'dots':
      return dotsPanels(shown.result, setting);
    case 'in-order':
      return orderPanels(shown.result, setting);
    case 'stem-and-leaf':
      return null;
  }
}

/** The axis that the readings run along. */
export function valuesAlong(shown: Shown): 'x' | 'y' {
  return shown.id === 'in-order' || (shown.id === 'box' && shown.result.direction === 'upright') ? 'y' : 'x';
}

const NAMES: Record<PictureId, string> = {
  histogram: 'Histogram',
  box: 'Box plot',
  'stem-and-leaf': 'Stem-and-leaf',
  empirical: 'Empirical distribution',
  dots: 'Dot plot',
  'in-order': 'Readings in order',
};
/** What a picture is called when nobody has given it a title. */
export const usualTitle = (id: PictureId, subject: string) => `${NAMES[id]} of ${subject}`;
