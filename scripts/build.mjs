/** Builds what has changed since the last build, in a process of its own: `npm test` checks the files meanwhile. */
import { build } from './setup.mjs';

build();
