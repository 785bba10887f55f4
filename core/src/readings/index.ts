// From text to cells to samples.
import './refusals.js';
export {
  freeName,
  LONGEST_CELL,
  LONGEST_NAME,
  MOST_CELLS,
  MOST_COLUMNS,
  parseBlock,
  type ParsedBlock,
  type ParsedColumn,
  parseTable,
  problemCells,
  rowsBefore,
} from './block.js';
export { censoredReadings } from './censored.js';
export { columnOfField, descriptorOf, type PackageColumn, readDescriptor } from './data-package.js';
export { defused, toDelimited } from './delimited.js';
export { fingerprintOf } from './fingerprint.js';
export { readJsonTable } from './json.js';
export type { ColumnKind } from './kind.js';
export { type BlockLayout, recogniseLayout, recogniseRows, type TableLayout } from './layout.js';
export { countLevels, levelReader, type Levels, likelySame, withMerged, withParted } from './levels.js';
export { type DecimalMark, type NumberFormat, PLAIN_FORMAT, readCell, readNumber, rewritten } from './number-format.js';
export { outsideLimits, outsideWords } from './outside-limits.js';
export { spread, stack } from './reshape.js';
export { createRowCutter, LONGEST_ROW, type Separator, splitRows } from './rows.js';
export { NO_READINGS, type Sample, toSample, withReading } from './sample.js';
export { asTally, looksLikeTally } from './tally.js';
