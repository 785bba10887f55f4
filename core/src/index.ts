// The table of contents of the core.
export * from './analyses/analysis.js';
export { describeAnalysis, type DescribeResult } from './analyses/describe.js';
export { chunkCount, performChunk, type KernelOrder } from './analyses/kernels.js';
export { fieldText, isField, methodSentence, visibleParts } from './analyses/method-sentence.js';
export { missedSentence } from './analyses/normality-words.js';
export { normalityAnalysis, type NormalityResult, type NormalityTest } from './analyses/normality.js';
export { probabilityPlotAnalysis, type ProbabilityPlotResult } from './analyses/probability-plot.js';
export { ANALYSES, analysisById, UnknownAnalysis, type AnyAnalysis } from './analyses/registry.js';
export {
  advance,
  drive,
  inThisThread,
  isUnavailable,
  Stopped,
  type Executor,
  type Progress,
  type Stage,
} from './analyses/runner.js';
export { alphaSetting } from './analyses/settings.js';
export { differencesBetween, toWire, type Difference } from './analyses/wire.js';
export { normal } from './distributions/normal.js';
export { outsideBand } from './probability-plot/whole-plot-band.js';
export { decimalsOf, formatFigure, formatP, formatPercent, groupThousands, type FigureKind } from './numeric/format.js';
export { normalQuantile } from './numeric/standard-normal.js';
export {
  freeName,
  LONGEST_CELL,
  LONGEST_NAME,
  MOST_CELLS,
  MOST_COLUMNS,
  parseBlock,
  problemCells,
  type BlockProblem,
  type ParsedBlock,
  type ParsedColumn,
} from './readings/block.js';
export { fingerprintOf } from './readings/fingerprint.js';
export type { ColumnKind } from './readings/kind.js';
export { recogniseLayout, type BlockLayout, type Separator } from './readings/layout.js';
export {
  readCell,
  readNumber,
  type CellReading,
  type DecimalMark,
  type NumberFormat,
  type ThousandsMark,
} from './readings/number-format.js';
export { toSample, type ColumnOfText, type Sample } from './readings/sample.js';
export { fillNormals } from './random/normal.js';
export { createStream, GREATEST_SEED, nextOpenUnit } from './random/stream.js';
