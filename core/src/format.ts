// How figures are printed.
export {
  decimalsOf,
  equalsP,
  formatFigure,
  formatP,
  formatPercent,
  formatPercentOf,
  formatValue,
  groupThousands,
} from './numeric/format.js';
export { roundTo } from './numeric/round-to.js';
