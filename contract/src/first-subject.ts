/** The initial subject: the first measurement, else the first count; null if all columns are labels. */
export function firstSubject(columns: readonly { id: string; kind: string }[]): string | null {
  const of = (wanted: string) => columns.find(({ kind }) => kind === wanted)?.id;
  return of('measure') ?? of('count') ?? null;
}
