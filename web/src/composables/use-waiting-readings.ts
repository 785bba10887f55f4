import { shallowRef } from 'vue';
import { pasted, type Incoming } from '../files/incoming.js';

/** Readings on their way to the table from where they do not belong: a field of one line, the list of studies. */
const waiting = shallowRef<Incoming | null>(null);

/** Lines that are no single value: at least two that hold something. */
export const isBlock = (text: string): boolean =>
  text.split(/\r\n|\r|\n/).filter((line) => line.trim() !== '').length > 1;

/** Holds readings until the table takes them up. */
export function useWaitingReadings() {
  /** Keeps a pasted block out of a one-line field and has it wait for the readings; a single line is pasted as ever, and the table has its own ways. */
  function keepOut(event: ClipboardEvent): void {
    const field = event.target as HTMLElement;
    if (!field.matches?.('input:not([data-grid-cursor]):not(.editing)')) return;
    const text = event.clipboardData?.getData('text/plain') ?? '';
    if (!isBlock(text)) return;
    event.preventDefault();
    event.stopPropagation();
    field.blur();
    waiting.value = pasted(text);
  }
  /** What waits, taken up: it waits no longer. */
  function take(): Incoming | null {
    const incoming = waiting.value;
    waiting.value = null;
    return incoming;
  }
  return { waiting, keepOut, take };
}
