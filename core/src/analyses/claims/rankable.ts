import { censoredReadings } from '../../readings/censored.js';
import type { Sample } from '../../readings/sample.js';

/**
 * The readings of groups as ranks need them. Those of which only a limit is known have a rank where the limit settles it: below every reading, or above every one; they then tie with each other. Why it is not
 * settled, otherwise.
 */
export function rankable(groups: readonly Sample[]): Float64Array[] | string {
  if (groups.every(({ censored }) => !censored)) return groups.map(({ values }) => values);
  let [least, greatest] = [Infinity, -Infinity];
  for (const { values } of groups)
    for (const x of values) {
      least = Math.min(least, x);
      greatest = Math.max(greatest, x);
    }
  // Beyond every reading, and apart from every one.
  const room = greatest > least ? greatest - least : 1;
  for (const group of groups)
    for (const { limit, side, row } of censoredReadings(group)) {
      const settled = side < 0 ? limit <= least : limit >= greatest;
      if (!settled)
        return `${group.name}, row ${row}: known only to lie ${side < 0 ? 'below' : 'above'} ${limit}, which lies among the readings, so it has no definite rank.`;
    }
  return groups.map((group) =>
    Float64Array.from([
      ...group.values,
      ...censoredReadings(group).map(({ side }) => (side < 0 ? least - room : greatest + room)),
    ]),
  );
}
