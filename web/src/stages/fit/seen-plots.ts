/** Columns whose readings were drawn on this page since it was loaded, by study: who has seen the plot is no fresh eye. */
const seen = new Set<string>();

const keyOf = (study: string, column: string) => `${study} ${column}`;
export const plotSeen = (study: string, column: string): void => void seen.add(keyOf(study, column));
export const wasPlotSeen = (study: string, column: string): boolean => seen.has(keyOf(study, column));
