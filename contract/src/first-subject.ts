/** What is looked at where nobody has chosen: the first measure, else the first count; null where all are labels. */
export function firstSubject(columns: readonly { id: string; kind: string }[]): string | null {
  const of = (wanted: string) => columns.find(({ kind }) => kind === wanted)?.id;
  return of('measure') ?? of('count') ?? null;
}
