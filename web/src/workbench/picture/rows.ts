/** A table of full values, its head first. */
export type Rows = readonly (readonly (string | number)[])[];
