export * from './bounds.js';
export * from './changes.js';
export * from './evidence.js';
export * from './problems.js';
export * from './studies.js';
export * from './footprint.js';
export * from './study-file.js';
