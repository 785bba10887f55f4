/** What a careful colleague would say beside the figures. */
export interface Note {
  code: string;
  text: string;
}
