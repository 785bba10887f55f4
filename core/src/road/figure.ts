/** What a reader may ask of a figure: what it means, how it is worked out, and when it is the one to quote. */
export interface Explained {
  key: string;
  name: string;
  /** In a sentence. */
  meaning: string;
  formula: string;
  /** When it is the one to use; left out where there is no choice. */
  use?: string;
}

/** A figure of a result R. */
export interface FigureOf<R> extends Explained {
  /** As it is shown; null where this result has none. */
  text: (result: R) => string | null;
  /** What stands beside the name in smaller words. */
  note?: (result: R) => string;
}

/** A figure with what results give for it, one text each. */
export interface FoundFigure extends Explained {
  texts: readonly string[];
  note: string;
}

/** The figures that any of the results has, in the order of the list; what stands beside the name is said of one result only. */
export function foundFigures<R>(figures: readonly FigureOf<R>[], results: readonly R[]): FoundFigure[] {
  const [only] = results;
  return figures.flatMap(({ text, note, ...explained }) => {
    const texts = results.map(text);
    if (texts.every((found) => found === null)) return [];
    const beside = results.length === 1 ? (note?.(only!) ?? '') : '';
    return [{ ...explained, texts: texts.map((found) => found ?? '–'), note: beside }];
  });
}
