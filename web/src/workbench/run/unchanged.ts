import { computed, type ComputedRef } from 'vue';

/** A computed value that keeps its identity while it is equal, so that dependents are not computed or drawn again. For plain data. */
export function unchanged<T>(getter: () => T): ComputedRef<T> {
  return computed<T>((before) => {
    const now = getter();
    return before !== undefined && JSON.stringify(before) === JSON.stringify(now) ? before : now;
  });
}
