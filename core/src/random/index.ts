// Streams of random numbers and draws from them.
export { fillNormals } from './normal.js';
export { createStream, GREATEST_SEED, nextOpenUnit } from './stream.js';
