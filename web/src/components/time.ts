const time = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' });

/** A moment as "23 Nov 2026, 14:05", in the analyst's own time zone. */
export const formatTime = (iso: string): string => time.format(new Date(iso));
