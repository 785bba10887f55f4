import made from 'virtual:methods';
import type { Methods } from './methods.js';

/** The methods of the core, as web/plugins/methods.ts has read them. */
export const METHODS = made as Methods;
