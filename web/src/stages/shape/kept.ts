import { subjectWords } from '@verdict/core/road';
import type { Titles } from '../../charts/value-axis.js';
import type { DrawKept } from '../../workbench/stage.js';
import { panelsOf, PICTURES, usualTitle, type Shown } from './pictures.js';

const NOTHING: ReadonlySet<number> = new Set();

/** A kept picture of Shape, drawn again with the titles it was given. */
export const drawKept: DrawKept = ({ analysis, request, result }, bounds) => {
  if (!PICTURES.some(({ id }) => id === analysis)) return null;
  const shown = { id: analysis, result } as unknown as Shown;
  const titles: Titles = request;
  const panels = panelsOf(shown, { bounds, titles, lines: [], hold: null }, NOTHING);
  return panels && { title: titles.title ?? usualTitle(shown.id, subjectWords(request)), panels };
};
