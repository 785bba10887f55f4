import { holm } from '../../numeric/holm.js';
import { LOOKS, type Claims, type Described, type Look } from './describe-result.js';

type Looked = Pick<Described, 'skewnessTest' | 'kurtosisTest' | 'gap' | 'farthest' | 'drift'>;

/**
 * Steps above 1.25 SDs. The tests of skewness and kurtosis are made for exact readings: of clean ones rounded so coarsely they find something in up to every
 * sample (simulated, n = 8 to 300), and are left out.
 */
export const isTooCoarse = ({ resolution, sd }: Pick<Described, 'resolution' | 'sd'>): boolean =>
  resolution !== null && sd !== null && resolution > 1.25 * sd;

/** Each look with its p-value, where there is one. */
function pOfLooks({ skewnessTest, kurtosisTest, gap, farthest, drift }: Looked): [Look, number][] {
  const all = { lean: skewnessTest, tails: kurtosisTest, gap, far: farthest, drift };
  return LOOKS.flatMap((look) => (all[look] ? [[look, all[look].pValue] as [Look, number]] : []));
}

/**
 * The looks of each part that found something, when the level is shared among all of them: clean normal samples, one or twelve side by side, get any
 * claim at most as often as the level says.
 */
export function claimsOf(parts: readonly Looked[], alpha: number): Claims[] {
  const all = parts.flatMap((figures, part) => pOfLooks(figures).map(([look, p]) => ({ part, look, p })));
  const passed = holm(
    all.map(({ p }) => p),
    alpha,
  );
  return parts.map((_, part) => ({
    found: all.filter((one, i) => one.part === part && passed[i]).map(({ look }) => look),
    looks: all.length,
  }));
}
