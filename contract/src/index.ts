export * from './bounds.js';
export * from './changes.js';
export * from './channels.js';
export * from './decisions.js';
export * from './evidence.js';
export * from './jobs.js';
export * from './problems.js';
export * from './studies.js';
export * from './footprint.js';
export {
  LOG_KINDS,
  STUDY_FILE,
  STUDY_FILE_VERSION,
  type FileColumn,
  type FileHead,
  type LogDetail,
  type StudyFile,
} from './file/study-file.js';
export * from './file/pieces.js';
export * from './file/held-study.js';
export * from './nesting.js';
export * from './check/check-change.js';
export { MOST_STUDY_CELLS, type ColumnNow, type StudyNow } from './check/study-now.js';
export * from './row-moves.js';
export { objectionToFile, type FileOutline } from './check/check-study-file.js';
export * from './new-ids.js';
export * from './first-subject.js';
export * from './older-changes.js';
export * from './file/with-ids.js';
export { auditStudy, chainOf, faultWords, type Audit } from './chain/audit.js';
export { beganWith } from './chain/begin.js';
export * from './chain/source.js';
export { Cells } from './chain/cells.js';
export { CellsDigest, digestOfCells } from './chain/digest.js';
export { evidenceContent, evidenceWords, linkAfter, type ChainEnd, type Link } from './chain/links.js';
