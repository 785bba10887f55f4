export { serve, type Running, type Settings } from './serve.js';
