/** What ECMAScript 2023 added to arrays, for an engine that is older than the browsers Verdict runs in. Numbers are untouched by it. */
const typed = Object.getPrototypeOf(Float64Array.prototype) as object;

const ADDED = {
  toSorted(this: unknown[], compare?: (a: unknown, b: unknown) => number) {
    return this.slice().sort(compare);
  },
  toReversed(this: unknown[]) {
    return this.slice().reverse();
  },
  with(this: unknown[], at: number, value: unknown) {
    const copy = this.slice();
    copy[at < 0 ? copy.length + at : at] = value;
    return copy;
  },
  findLast(this: unknown[], holds: (value: unknown, i: number) => boolean) {
    for (let i = this.length - 1; i >= 0; i--) if (holds(this[i], i)) return this[i];
    return undefined;
  },
};

for (const prototype of [Array.prototype, typed])
  for (const [name, value] of Object.entries(ADDED))
    if (!(name in prototype)) Object.defineProperty(prototype, name, { value, writable: true, configurable: true });
