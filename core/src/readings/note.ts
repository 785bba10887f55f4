/** What a careful colleague would say beside the figures. */
export interface Note {
  code: string;
  text: string;
  /** Only reassures: said of one column, not of each of many parts. */
  quiet?: true;
}
