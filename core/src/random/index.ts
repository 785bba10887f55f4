// Streams of random numbers and draws from them.
export { fillNormals } from './normal.js';
export { createStream, nextOpenUnit } from './stream.js';
