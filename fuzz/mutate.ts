import type { Chance } from './chance.js';

type Json = null | boolean | number | string | Json[] | { [key: string]: Json };

/** What nobody means, and what somebody might. */
const ODD: readonly Json[] = [
  ...[
    null,
    true,
    false,
    '',
    ' ',
    '0',
    'null',
    '__proto__',
    'constructor',
    '\ud83d',
    'a\udc00b',
    '\0',
    '\ufeff',
    '\r\n',
  ],
  ...[0, -0, -1, 1, 0.5, 1e-320, 1e308, 2 ** 31, -(2 ** 31), 2 ** 53, 999_999, 1_000_000, 300_000_000],
  ...[[], {}, [[]], [null], { length: 3 }, { kind: 'undo' }, { toString: 1 }],
];

const longText = (chance: Chance) => 'x'.repeat(chance.of([79, 81, 121, 501, 1_001, 2_001, 40_000]));

/** Nothing that makes sense nests deeper; what was put in to make none is left alone. */
const DEEPEST_PLACE = 10;

/** Every place in a value, as the path to it. */
function placesIn(value: Json, path: string[] = []): string[][] {
  if (typeof value !== 'object' || value === null || path.length > DEEPEST_PLACE) return [path];
  // Of long lists a few places are enough.
  const entries = Object.entries(value).slice(0, 12);
  return [path, ...entries.flatMap(([key, inner]) => placesIn(inner, [...path, key]))];
}

const isHolder = (value: Json): value is { [key: string]: Json } => typeof value === 'object' && value !== null;

function odd(chance: Chance, before: Json, others: readonly string[]): Json {
  if (typeof before === 'string' && chance.holds(0.3)) {
    return chance.of([before.toUpperCase(), `${before} `, before.slice(1), `${before}\ud83d`, longText(chance)]);
  }
  if (typeof before === 'number' && chance.holds(0.4))
    return chance.of([before + 1, before - 1, -before, before * 1_000]);
  if (chance.holds(0.2) && others.length > 0) return chance.of(others);
  if (chance.holds(0.03)) return JSON.parse('['.repeat(500) + ']'.repeat(500)) as Json;
  return structuredClone(chance.of(ODD)) as Json;
}

/**
 * The value with one place of it changed: another value, an entry twice or none, a key too many. The value itself is changed.
 * @param others ids of other things, to name in the wrong place
 */
export function mutate(chance: Chance, value: Json, others: readonly string[]): Json {
  const places = placesIn(value).filter((path) => path.length > 0);
  if (places.length === 0) return odd(chance, value, others);
  const path = chance.of(places);
  const key = path.at(-1)!;
  const holder = path.slice(0, -1).reduce<Json>((inner, step) => (inner as { [key: string]: Json })[step]!, value);
  if (!isHolder(holder)) return value;
  if (Array.isArray(holder)) {
    const turn = chance.upTo(4);
    if (turn === 0) holder.push(structuredClone(holder[Number(key)]!));
    else if (turn === 1) holder.splice(Number(key), 1);
    else holder[Number(key)] = odd(chance, holder[Number(key)]!, others);
    return value;
  }
  const turn = chance.upTo(8);
  if (turn === 0) delete holder[key];
  else if (turn === 1)
    holder[chance.of(['more', '__proto__x', 'id', 'rowCount', 'texts', 'subject'])] = odd(chance, null, others);
  else holder[key] = odd(chance, holder[key]!, others);
  return value;
}
