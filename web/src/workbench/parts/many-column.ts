/** A column of the table of many columns. */
export interface ManyColumn<Row> {
  prop: keyof Row & string;
  label: string;
  /** The number it is sorted by; what has none stays last by a number of its own. */
  by?: (row: Row) => number;
  width?: number;
  minWidth?: number;
  align?: 'right';
}

/** A column of numbers, which can be sorted by them. */
export const numbers = <Row>(
  prop: keyof Row & string,
  label: string,
  width: number,
  by: (row: Row) => number,
): ManyColumn<Row> => ({ prop, label, width, by, align: 'right' });
