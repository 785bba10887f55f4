import { useEventListener } from '@vueuse/core';

/** What is only chosen takes no letters, nor does a list that is closed. */
const CHOSEN = '[type=radio], [type=checkbox], [readonly], .el-select__input[aria-expanded=false]';
const WRITTEN_IN = `input:not(${CHOSEN}), textarea, [contenteditable]`;

/** True where a key belongs to a field that is being written in. */
export function isTyping(event: Event): boolean {
  const target = event.target as HTMLElement | null;
  if (!target?.closest) return false;
  return target.closest(WRITTEN_IN) !== null;
}

/** Digits in a table are meant for its cells, also for those that follow others and take none. */
const isMeantForCell = ({ key, target }: KeyboardEvent) =>
  /^\d$/.test(key) && target instanceof Element && target.closest('[role=grid], [data-grid-cursor]') !== null;

/** Single-letter keys of a stage, off while something is being written or a dialog is open. */
export function useKeys(keys: Record<string, () => void>): void {
  useEventListener('keydown', (event) => {
    if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event) || isMeantForCell(event)) return;
    if (document.querySelector('.el-overlay:not([style*="display: none"]) [role="dialog"]')) return;
    const action = keys[event.key.toLowerCase()];
    if (!action) return;
    event.preventDefault();
    action();
  });
}
