import type { ChartColours } from './theme.js';

/** A colour by its role. */
export type Tone = 'ink' | 'soft' | 'green' | 'ochre' | 'card' | 'tint' | 'gridLine' | { series: number };
export type Marker = 'circle' | 'square' | 'triangle' | 'diamond';

/** Groups are told apart by colour and marker together. */
const MARKERS: readonly Marker[] = ['circle', 'square', 'triangle', 'diamond'];
export const markerOf = (series: number): Marker => MARKERS[series % MARKERS.length]!;

/** What a picture is put together from, in the units of its axes. */
export type Mark =
  /** Bars that stand on 0, with their true edges; chosen ones are filled. */
  | { kind: 'bars'; edges: readonly number[]; heights: readonly number[]; tone: Tone; chosen?: ReadonlySet<number> }
  | {
      kind: 'line';
      x: readonly number[];
      y: readonly number[];
      tone: Tone;
      width?: number;
      dash?: readonly number[];
      /** Level from each point to the next. */
      stepped?: boolean;
    }
  | {
      kind: 'points';
      x: readonly number[];
      y: readonly number[];
      tone: Tone;
      marker: Marker;
      radius: number;
      filled?: boolean;
    }
  | { kind: 'rect'; x: [number, number]; y: [number, number]; fill: Tone; stroke: Tone; width?: number }
  /** A line across the whole panel at one value; words at the end of a level one, above the panels for an upright one. */
  | {
      kind: 'rule';
      across: 'x' | 'y';
      at: number;
      tone: Tone;
      dash?: readonly number[];
      words?: string;
      wordsAt?: 'start' | 'end';
      /** Beyond the picture it stands at its edge, faint, with an arrow: a limit is not passed over. */
      stays?: boolean;
    }
  | { kind: 'dots'; at: readonly number[]; counts: readonly number[]; width: number; perDot: number; tone: Tone }
  /** A closed shape, tinted. */
  | { kind: 'area'; x: readonly number[]; y: readonly number[]; fill: Tone; alpha?: number }
  /** One column for each number, those that are asked for filled; as far apart as `step` at the nearest, 1 by default. */
  | {
      kind: 'columns';
      x: readonly number[];
      y: readonly number[];
      filled: readonly boolean[];
      tone: Tone;
      step?: number;
    };

/** Where marks are drawn: the panel in pixels, and the way from units to pixels. */
export interface Ground {
  context: CanvasRenderingContext2D;
  colours: ChartColours;
  left: number;
  right: number;
  top: number;
  bottom: number;
  x(value: number): number;
  y(value: number): number;
  /** Where words stand at the top already, so that others go below them. */
  taken: { line: number; from: number; to: number }[];
}

export function colourOf(tone: Tone, colours: ChartColours): string {
  return typeof tone === 'string' ? colours[tone] : colours.series[tone.series % colours.series.length]!;
}
