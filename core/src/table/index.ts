// Columns that follow others, formulas, ways of looking at the table.
import '../readings/refusals.js';
export { arrangedRows, type Arrangement, AS_STORED, type RowFilter } from './arrange.js';
export { boundsWith, sameLimits, transformedLimits } from './bounds-with.js';
export { type Derivation, type DerivationKind, derivationSchema, sourcesOf } from './derivation.js';
export { cellsOf, circleThrough, decimalsToShow, derive, sampleOfColumn } from './derive.js';
export { type Derived, newMemo } from './memo.js';
export { followersObjection } from './followers.js';
export { frozenCells } from './frozen.js';
export { derivedKind } from './derived-step.js';
export { bracketed, type FormulaFault, readFormula, shownFormula } from './formula.js';
export { type FormulaFunction, FUNCTIONS } from './functions.js';
export { sampleInParts, samplesBeside } from './split.js';
export type { Table, TableColumn } from './table.js';
export { renamedWith, usualName } from './usual-name.js';
export { TRANSFORMATION_TITLES } from '../transform/words.js';
export { isPower, TRANSFORMATIONS } from '../transform/transformation.js';
export { derivationWords, followsSentence } from './words.js';
