/** The family last compared with the readings of each study, while the page is open: another stage begins with it. */
const families = new Map<string, string>();

export const rememberFamily = (study: string | undefined, family: string): void =>
  void (study !== undefined && families.set(study, family));

/** Null where it is the normal that everything begins with. */
export function lastFamily(study: string | undefined): string | null {
  const family = study === undefined ? undefined : families.get(study);
  return family === undefined || family === 'normal' ? null : family;
}
