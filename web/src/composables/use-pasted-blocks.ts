import { ref } from 'vue';

/** A block of lines that was pasted where one line belongs, until the table of readings takes it up. */
const waiting = ref<string | null>(null);

/** Lines that are no single value: at least two that hold something. */
export const isBlock = (text: string): boolean =>
  text.split(/\r\n|\r|\n/).filter((line) => line.trim() !== '').length > 1;

/** Blocks of readings on their way from a field of one line, into which they would be pressed as one, to the table. */
export function usePastedBlocks() {
  /** Keeps a pasted block out of a one-line field and has it wait for the readings; a single line is pasted as ever, and the table has its own ways. */
  function keepOut(event: ClipboardEvent): void {
    const field = event.target as HTMLElement;
    if (!field.matches?.('input:not([data-grid-cursor]):not(.editing)')) return;
    const text = event.clipboardData?.getData('text/plain') ?? '';
    if (!isBlock(text)) return;
    event.preventDefault();
    event.stopPropagation();
    field.blur();
    waiting.value = text;
  }
  /** What waits, taken up: it waits no longer. */
  function take(): string | null {
    const text = waiting.value;
    waiting.value = null;
    return text;
  }
  return { waiting, keepOut, take };
}
