import { computed, type ComputedRef } from 'vue';

/** A computed value that stays the same object while it says the same: what hangs on it is not worked out, or drawn, again. For plain data. */
export function unchanged<T>(getter: () => T): ComputedRef<T> {
  return computed<T>((before) => {
    const now = getter();
    return before !== undefined && JSON.stringify(before) === JSON.stringify(now) ? before : now;
  });
}
