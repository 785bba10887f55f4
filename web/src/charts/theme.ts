import { Chart } from 'chart.js';

/** The roles of the look as a chart needs them: read from the page's own tokens, so that dark pictures are drawn and not inverted. */
export interface ChartColours {
  ink: string;
  soft: string;
  card: string;
  gridLine: string;
  green: string;
  tint: string;
  ochre: string;
  ochreText: string;
  /** Of groups, together with their markers. */
  series: readonly string[];
}

export function readColours(element: Element): ChartColours {
  const style = getComputedStyle(element);
  const token = (name: string) => style.getPropertyValue(`--${name}`).trim();
  return {
    ink: token('ink'),
    soft: token('soft'),
    card: token('card'),
    gridLine: token('grid-line'),
    green: token('green'),
    tint: token('tint'),
    ochre: token('ochre'),
    ochreText: token('ochre-text'),
    series: [1, 2, 3, 4].map((k) => token(`series-${k}`)),
  };
}

Chart.defaults.font.family = "'IBM Plex Sans', sans-serif";
Chart.defaults.font.size = 12;
Chart.defaults.animation = false;
Chart.defaults.maintainAspectRatio = false;
