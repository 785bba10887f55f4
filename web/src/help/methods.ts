/** Something of a method that has a doc comment: a function, or a figure that it rests on. */
export interface MethodItem {
  name: string;
  /** "(sorted, side)"; empty for what is no function. */
  parameters: string;
  /** The comment, a text a paragraph. */
  text: string[];
}

/** A method: a file of the core. */
export interface MethodEntry {
  id: string;
  title: string;
  items: MethodItem[];
}

/** What an analysis does beyond its own sentence, and which methods it is worked out with. */
export interface AnalysisEntry {
  id: string;
  text: string[];
  with: string[];
}

export interface Methods {
  chapters: { title: string; entries: MethodEntry[] }[];
  analyses: AnalysisEntry[];
}
