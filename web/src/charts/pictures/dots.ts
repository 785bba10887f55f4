import type { DotsResult } from '@verdict/core/analyses';
import { groupThousands } from '@verdict/core/format';
import type { Hit, Panels } from '../picture.js';
import { boundMarks, readingWords, valueAxis, type Setting } from '../value-axis.js';

/** Readings as dots piled up where they lie, one panel for each part. */
export function dotsPanels(result: DotsResult, setting: Setting): Panels {
  const { parts, width, perDot, grouped } = result;
  const half = width / 2;
  const least = Math.min(...parts.map(({ at }) => at[0]!)) - half;
  const greatest = Math.max(...parts.map(({ at }) => at.at(-1)!)) + half;
  const x = valueAxis(result, least, greatest, setting);
  const hits = parts.flatMap(({ at, counts, name }, panel): Hit[] =>
    at.map((value, i) => {
      const count = counts[i] === 1 ? '1 reading' : `${groupThousands(counts[i]!)} readings`;
      const words = `${grouped ? `${name}, ` : ''}about ${readingWords(result, value)}: ${count}`;
      return { panel, x: [value - half, value + half], y: [0, 1], words };
    }),
  );
  const panels = parts.map(({ name, n, at, counts }) => ({
    name: grouped ? `${name}, ${groupThousands(n)}` : '',
    marks: [
      { kind: 'dots' as const, at, counts, width, perDot, tone: 'ink' as const },
      ...boundMarks(result, x, setting, 'x'),
    ],
  }));
  const each = perDot === 1 ? 'one dot for each reading' : `one dot for up to ${groupThousands(perDot)} readings`;
  const title = setting.titles.heightTitle ?? each;
  // Dots are counted, not read off an axis.
  return { x, y: { from: 0, to: 1, title, ticks: [] }, panels, hits };
}
