/** How an analyst arranged the levels of a label column. The cells stay as written. */
export interface Levels {
  /** Levels in the wanted order; those not named follow in the order of first appearance. */
  order: string[];
  /** Spellings that count as another level: "Kiln a " → "kiln A". */
  merged: { from: string; into: string }[];
}

export interface Level {
  name: string;
  count: number;
  /** The spellings that were merged into it, its own included. */
  spellings: string[];
}

/** The level that a written label belongs to; null for an empty cell. */
export function levelReader(levels: Levels | null): (text: string) => string | null {
  const merged = new Map((levels?.merged ?? []).map(({ from, into }) => [from, into]));
  return (text) => (text.trim() === '' ? null : (merged.get(text) ?? text));
}

/** The levels of a label column with their counts, in the analyst's order, then in the order of first appearance. */
export function countLevels(cells: readonly string[], levels: Levels | null): Level[] {
  const levelOf = levelReader(levels);
  const found = new Map<string, { count: number; spellings: Set<string> }>();
  for (const text of cells) {
    const name = levelOf(text);
    if (name === null) continue;
    let level = found.get(name);
    if (!level) found.set(name, (level = { count: 0, spellings: new Set() }));
    level.count++;
    level.spellings.add(text);
  }
  const wanted = (levels?.order ?? []).filter((name) => found.has(name));
  const others = [...found.keys()].filter((name) => !wanted.includes(name));
  return [...wanted, ...others].map((name) => {
    const { count, spellings } = found.get(name)!;
    return { name, count, spellings: [...spellings] };
  });
}

const plain = (text: string) => text.trim().replace(/\s+/g, ' ').toLowerCase();

/** Levels that differ in blanks and case only: very likely one level, spelt twice. The most frequent spelling leads each group. */
export function likelySame(levels: readonly Level[]): string[][] {
  const groups = new Map<string, Level[]>();
  for (const level of levels) {
    const key = plain(level.name);
    groups.set(key, [...(groups.get(key) ?? []), level]);
  }
  return [...groups.values()]
    .filter((group) => group.length > 1)
    .map((group) => [...group].sort((a, b) => b.count - a.count).map(({ name }) => name));
}

/** Levels after merging some names into one; what was merged into any of them follows. */
export function withMerged(levels: Levels | null, names: readonly string[], into: string): Levels {
  const { order, merged } = levels ?? { order: [], merged: [] };
  const moved = new Set(names.filter((name) => name !== into));
  const kept = merged.filter(({ from }) => from !== into).map((m) => (moved.has(m.into) ? { ...m, into } : m));
  const known = new Set(kept.map(({ from }) => from));
  const added = [...moved].filter((from) => !known.has(from)).map((from) => ({ from, into }));
  return { order: order.filter((name) => !moved.has(name)), merged: [...kept, ...added] };
}

/** Levels with one spelling taken out of what it was merged into; whatever else was merged stays so. */
export function withParted({ order, merged }: Levels, spelling: string): Levels {
  return { order, merged: merged.filter(({ from }) => from !== spelling) };
}
