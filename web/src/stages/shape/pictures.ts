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
import type { Bounds, Study } from '@verdict/contract';
import type { Sample } from '@verdict/core/readings';
import { subjectWords, type Analysis, type Settings } from '@verdict/core/road';
import { computed, type ComputedRef, type Ref } from 'vue';
import { boxPanels } from '../../charts/pictures/box.js';
import { dotsPanels } from '../../charts/pictures/dots.js';
import { histogramPanels } from '../../charts/pictures/histogram.js';
import { orderPanels } from '../../charts/pictures/in-order.js';
import { stepsPanels } from '../../charts/pictures/empirical.js';
import type { Setting, Titles } from '../../charts/value-axis.js';
import type { Panels } from '../../charts/picture.js';
import type { Rows } from '../../workbench/picture/rows.js';
import { drawing, type KeptResult } from '../../workbench/evidence/drawing.js';
import type { Drawing, KeptPicture } from '../../workbench/frame/stage.js';
import { useRun, type Run } from '../../workbench/run/use-run.js';
import { boxRows, dotsRows, histogramRows, orderRows, stemRows, stepsRows } from './picture-rows.js';

export type PictureResult =
  BoxResult | DotsResult | EmpiricalResult | HistogramResult | InOrderResult | StemAndLeafResult;

/** A result as the stage shows it, by the functions of its own picture. */
export interface Shown {
  result: PictureResult;
  /** Null for leaves, which are text. */
  panels: (setting: Setting, chosen: ReadonlySet<number>) => Panels | null;
  /** The table behind it. */
  rows: () => Rows;
  /** The axis that the readings run along. */
  along: 'x' | 'y';
}

/** How the results of one analysis are shown. */
interface Hand<Result> {
  /** The word above the picture. */
  tab: string;
  /** What it is called when nobody has given it a title. */
  name: string;
  panels: (result: Result, setting: Setting, chosen: ReadonlySet<number>) => Panels | null;
  rows: (result: Result) => Rows;
  along?: (result: Result) => 'x' | 'y';
  /** True for text, which has no titles on axes. */
  isText?: true;
  /** What the request takes from the study. */
  ofStudy?: (study: StudySettings) => object;
}

type StudySettings = Pick<Study, 'alpha' | 'quantileType'>;

export interface ShapePicture {
  id: string;
  tab: string;
  isText: boolean;
  title: (subject: string) => string;
  /** Runs the analysis while something is asked. */
  run: (
    sample: Ref<Sample | null>,
    given: () => { asked: object; study: StudySettings } | null,
  ) => { run: Run<Settings, PictureResult>; shown: ComputedRef<Shown | null> };
  /** How a kept result is drawn again; nothing for text. */
  kept: readonly Drawing[];
}

const TITLES = ['title', 'valueTitle', 'heightTitle'];
const NOTHING: ReadonlySet<number> = new Set();

/** The results of an analysis as a picture of Shape. */
export function picture<Request extends Settings, Result extends PictureResult>(
  analysis: Analysis<Request, Result>,
  hand: Hand<Result>,
): ShapePicture & { shown: (result: Result) => Shown } {
  const shown = (result: Result): Shown => ({
    result,
    panels: (setting, chosen) => hand.panels(result, setting, chosen),
    rows: () => hand.rows(result),
    along: hand.along?.(result) ?? 'x',
  });
  const title = (subject: string) => `${hand.name} of ${subject}`;
  const keptPicture = ({ result, request }: KeptResult<Result>, bounds: Bounds | null): KeptPicture | null => {
    const titles = request as Titles;
    const panels = hand.panels(result, { bounds, titles, lines: [], hold: null }, NOTHING);
    return panels && { title: titles.title ?? title(subjectWords(request)), panels };
  };
  return {
    ...{ id: analysis.id, tab: hand.tab, isText: hand.isText === true, title, shown },
    run: (sample, given) => {
      const fixed = () => {
        const now = given();
        return now && { ...now.asked, ...hand.ofStudy?.(now.study) };
      };
      const texts = hand.isText ? [] : TITLES;
      const run = useRun(analysis, sample, { fixed, elsewhere: ['quantileType'], texts });
      return { run, shown: computed(() => run.result.value && shown(run.result.value)) };
    },
    kept: hand.isText ? [] : [drawing(analysis, keptPicture)],
  };
}

export const HISTOGRAM = picture(histogramAnalysis, {
  ...{ tab: 'Histogram', name: 'Histogram', panels: histogramPanels, rows: histogramRows },
});
export const BOX = picture(boxAnalysis, {
  ...{ tab: 'Box', name: 'Box plot', panels: boxPanels, rows: boxRows },
  along: ({ direction }) => (direction === 'upright' ? 'y' : 'x'),
  ofStudy: ({ quantileType }) => ({ quantileType }),
});
export const STEMS = picture(stemAndLeafAnalysis, {
  ...{ tab: 'Stem', name: 'Stem-and-leaf', panels: () => null, rows: stemRows, isText: true as const },
});
export const STEPS = picture(empiricalAnalysis, {
  ...{ tab: 'Steps', name: 'Empirical distribution', panels: stepsPanels, rows: stepsRows },
});
export const DOTS = picture(dotsAnalysis, { tab: 'Dots', name: 'Dot plot', panels: dotsPanels, rows: dotsRows });
export const IN_ORDER = picture(inOrderAnalysis, {
  ...{ tab: 'In order', name: 'Readings in order', panels: orderPanels, rows: orderRows },
  along: () => 'y',
  ofStudy: ({ alpha }) => ({ alpha }),
});

/** In the order of their words above the picture. */
export const PICTURES: readonly ShapePicture[] = [HISTOGRAM, BOX, STEMS, STEPS, DOTS, IN_ORDER];

/** The bins that are shown, where bins are. */
export const binsIn = (shown: Shown | null): HistogramResult | null =>
  shown && 'edges' in shown.result ? shown.result : null;

const areLeaves = (result: PictureResult): result is StemAndLeafResult => result.parts.some((part) => 'lines' in part);
/** The leaves that are shown, where leaves are. */
export const leavesIn = (shown: Shown | null): StemAndLeafResult | null =>
  shown && areLeaves(shown.result) ? shown.result : null;
