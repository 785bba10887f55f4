let time: Intl.DateTimeFormat | null = null;

/** A moment as the browser's language writes it, in the analyst's own time zone: "23 Nov 2026, 14:05". Files hold moments otherwise: sheet/sheet.ts. */
export function formatTime(iso: string): string {
  // Made once it is needed: the first costs 25 ms.
  time ??= new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' });
  return time.format(new Date(iso));
}
