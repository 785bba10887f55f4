import type { Piece } from '@verdict/core/road';

/** A picture of a piece of evidence on paper. */
export interface SheetPicture {
  title: string;
  svg: string;
  width: number;
  height: number;
}

/** The pictures by piece of evidence; null where one cannot be drawn, none where a piece has none. */
export type SheetPictures = ReadonlyMap<string, SheetPicture | null>;

/** A piece of evidence as it is read on paper. */
export interface SheetPiece {
  id: string;
  heading: string;
  leads: boolean;
  /** Why it is not about the readings of the sheet; empty where it is. */
  stale: string;
  finding: readonly Piece[];
  method: string;
  cautions: { text: string; answer: string }[];
  note: string;
  /** Where it comes from and how to have it again. */
  provenance: string;
}

/**
 * The sheet as text, before it is shown, printed or saved in some form. Moments stand in it as ISO texts, and figures with a decimal point: each form writes them as it
 * has to.
 */
export interface Sheet {
  title: string;
  /** "Verdict", or that it is not yet ruled. */
  kicker: string;
  /** What the study was found not to agree with in its record; empty where nothing was found. */
  notVerified: string;
  question: string;
  decision: { words: string; reason: string; leftOpen: string; who: string; at: string; revision: number } | null;
  /** What the sheet leads with, where a piece was chosen for that: its finding, and which it is. */
  headline: { finding: readonly Piece[]; of: string } | null;
  readings: string[];
  /** The readings that were set aside, and those left in on purpose, each with its reason. */
  aside: string[];
  leftIn: string[];
  pieces: SheetPiece[];
  /** Kept, and not on the sheet. */
  leftOut: string[];
  /** The number of viewed results, and the recommended ones that were not viewed. */
  weighed: string[];
  earlier: string[];
  /** How anyone has these numbers again. */
  recompute: string[];
  appendix: SheetTable | null;
}

export interface SheetTable {
  title: string;
  heads: string[];
  /** True for columns of numbers, which stand here with a decimal point as all figures do; labels stand as they were written. */
  numeric: boolean[];
  rows: string[][];
}

/** A moment as files hold it: "2026-11-27 07:50 UTC". */
export const isoTime = (iso: string): string => `${iso.slice(0, 10)} ${iso.slice(11, 16)} UTC`;

/** The moments that stand in a text of the sheet, in braces until a form writes them. */
const MOMENT = /\{(\d{4}-\d\d-\d\dT[\d:.]+Z)\}/g;
export const moment = (iso: string): string => `{${iso}}`;
export const withTimes = (text: string, write: (iso: string) => string): string =>
  text.replace(MOMENT, (_, iso: string) => write(iso));
