import './readings/refusals.js';
// The table of contents of the core.
export * from './analyses/analysis.js';
export { boxAnalysis, type BoxPart, type BoxResult } from './analyses/box.js';
export { describeAnalysis, type Described, type DescribeResult } from './analyses/describe.js';
export { quantileChoice, resultParagraph } from './analyses/describe-words.js';
export { QUANTILE_TYPES, type QuantileType } from './describe/quantiles.js';
export { dotsAnalysis, type DotsResult } from './analyses/dots.js';
export { empiricalAnalysis, type EmpiricalResult } from './analyses/empirical.js';
export { subjectWords } from './analyses/groups.js';
export { histogramAnalysis, type HistogramResult } from './analyses/histogram.js';
export { inOrderAnalysis, type InOrderResult } from './analyses/in-order.js';
export type { FittedCurve, Picture, Scores } from './analyses/picture.js';
export {
  sharesAnalysis,
  stretchWords,
  type SharesRequest,
  type SharesResult,
  type Stretch,
} from './analyses/shares.js';
export { leafWords, stemAndLeafAnalysis, stemText, type StemAndLeafResult } from './analyses/stem-and-leaf.js';
export { distributionAnalysis, type DistributionResult, type MomentFigure } from './analyses/distribution.js';
export {
  QUESTIONS,
  usualParameters,
  type DistributionRequest,
  type Question,
} from './analyses/distribution-request.js';
export { articleOf, complementSentence, distributionName, readingsSentence } from './analyses/distribution-words.js';
export { chunkCount, performChunk, type KernelOrder } from './analyses/kernels.js';
export { fieldText, isField, methodOf, methodSentence, visibleParts } from './analyses/method-sentence.js';
export { missedSentence } from './analyses/normality-words.js';
export { normalityAnalysis, type NormalityResult, type NormalityTest } from './analyses/normality.js';
export { probabilityPlotAnalysis, type ProbabilityPlotResult } from './analyses/probability-plot.js';
export { ANALYSES, analysisById, UnknownAnalysis, type AnyAnalysis } from './analyses/registry.js';
export { advance, drive, inThisThread, Stopped, type Executor, type Progress, type Stage } from './analyses/runner.js';
export { alphaSetting } from './analyses/settings.js';
export { differencesBetween, toWire, type Difference } from './analyses/wire.js';
export { outsideBand } from './probability-plot/whole-plot-band.js';
export {
  decimalsOf,
  equalsP,
  formatFigure,
  formatP,
  formatPercent,
  formatPercentOf,
  formatValue,
  groupThousands,
  type FigureKind,
} from './numeric/format.js';
export { normalQuantile } from './numeric/standard-normal.js';
export {
  cellsOf,
  circleThrough,
  decimalsToShow,
  derive,
  followersObjection,
  newMemo,
  sampleOfColumn,
  type Derived,
  type DeriveMemo,
} from './table/derive.js';
export { derivedKind } from './table/derived-step.js';
export { derivationSchema, sourcesOf, type Derivation, type DerivationKind } from './table/derivation.js';
export { bracketed, readFormula, shownFormula, type FormulaFault, type NamedColumn } from './table/formula.js';
export { roundTo } from './numeric/round-to.js';
export { FUNCTIONS, type FormulaFunction } from './table/functions.js';
export { derivationWords } from './table/words.js';
export {
  completed,
  distribution,
  FAMILIES,
  familyByName,
  ImpossibleParameters,
  parameterFaults,
  rangeWords,
  UnknownFamily,
} from './distributions/registry.js';
export {
  isRefusal,
  type Distribution,
  type Family,
  type ParameterFault,
  type Parameters,
  type ParameterSpec,
  type Refusal,
} from './distributions/family.js';
export { fit, type Fit, type FitMethod, type FitRequest } from './distributions/fit/fit.js';
export { curveOver, joined, wellPlaced, type Curve, type CurveScale, type Window } from './distributions/curve.js';
export { histogram, inBins, type Histogram } from './describe/histogram.js';
export { intervalProbability } from './distributions/interval-probability.js';
export { arrangedRows, AS_STORED, type Arrangement, type RowFilter } from './table/arrange.js';
export {
  freeName,
  LONGEST_CELL,
  LONGEST_NAME,
  MOST_CELLS,
  MOST_COLUMNS,
  parseBlock,
  parseTable,
  problemCells,
  rowsBefore,
  type BlockProblem,
  type ParsedBlock,
  type ParsedColumn,
} from './readings/block.js';
export { columnOfField, descriptorOf, readDescriptor, type PackageColumn } from './readings/data-package.js';
export { defused, toDelimited } from './readings/delimited.js';
export { fingerprintOf } from './readings/fingerprint.js';
export { readJsonTable } from './readings/json.js';
export type { ColumnKind } from './readings/kind.js';
export {
  recogniseLayout,
  recogniseRows,
  type BlockLayout,
  type Separator,
  type TableLayout,
} from './readings/layout.js';
export {
  countLevels,
  levelReader,
  likelySame,
  withMerged,
  withParted,
  type Level,
  type Levels,
} from './readings/levels.js';
export {
  PLAIN_FORMAT,
  readCell,
  readNumber,
  rewritten,
  type CellReading,
  type DecimalMark,
  type NumberFormat,
  type ThousandsMark,
} from './readings/number-format.js';
export { spread, stack, type Strand } from './readings/reshape.js';
export { createRowCutter, LONGEST_ROW, splitRows, type RowCutter } from './readings/rows.js';
export { NO_READINGS, toSample, withReading, type ColumnOfText, type Groups, type Sample } from './readings/sample.js';
export { sampleInParts, samplesBeside } from './table/split.js';
export type { Table, TableColumn } from './table/table.js';
export { fillNormals } from './random/normal.js';
export { createStream, GREATEST_SEED, nextOpenUnit } from './random/stream.js';
export { asTally, looksLikeTally } from './readings/tally.js';
