// What an analysis is and how it runs; no analysis stands here.
export * from './analysis.js';
export { beyondWords } from './beyond-limits.js';
export { type Explained, type FoundFigure, foundFigures } from './figure.js';
export { subjectWords } from './groups.js';
export { type InParts, isInParts } from './in-parts.js';
export { type KernelOrder, performChunk } from './kernels.js';
export {
  fieldText,
  isField,
  methodOf,
  type NamedParts,
  partsFor,
  unusedSetting,
  visibleParts,
} from './method-sentence.js';
export type { Piled } from './piled.js';
export { remembering } from './remembered.js';
export { advance, drive, type Executor, type Stage, Stopped } from './runner.js';
export { alphaSetting } from './settings.js';
export { MOST_SCREENED } from './several.js';
export { testsShown } from './tests-shown.js';
export { type Difference, differencesBetween, toWire } from './wire.js';
