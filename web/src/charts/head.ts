import { PICTURE_FONT } from './draw-marks.js';
import { colourOf, type Mark } from './marks.js';
import type { Panels } from './picture.js';
import type { ChartColours } from './theme.js';
import type { Area } from './words-box.js';

type Rule = Extract<Mark, { kind: 'rule' }>;
interface HeadWords {
  rule: Rule;
  words: string;
  line: number;
  /** On the left of its rule. */
  before: boolean;
}

const LINE = 17;
const CAPTION = 24;
const GAP = 6;
/** About the room that an axis takes at the left, before the chart is laid out. */
const AXIS = 62;

/** The upright rules with words; in panels one above the other they are the same, and said once. */
const rulesOf = ({ panels }: Panels): Rule[] =>
  (panels[0]?.marks ?? []).filter((mark): mark is Rule => mark.kind === 'rule' && mark.across === 'x' && !!mark.words);

/** The words of upright rules on as many lines above the panels as keep them apart. */
export function headWords(context: CanvasRenderingContext2D, picture: Panels, width: number): HeadWords[] {
  context.font = PICTURE_FONT;
  const { from, to } = picture.x;
  const [left, right] = [AXIS, width - 12];
  const taken: { line: number; from: number; to: number }[] = [];
  return rulesOf(picture).map((rule) => {
    const share = (rule.at - from) / (to - from);
    const at = left + Math.min(1, Math.max(0, share)) * (right - left);
    const arrows = !rule.stays ? ['', ''] : [share < 0 ? '← ' : '', share > 1 ? ' →' : ''];
    const words = `${arrows[0]}${rule.words}${arrows[1]}`;
    const wide = context.measureText(words).width;
    const before = rule.wordsAt === 'start' ? at - wide - GAP > left : at + wide + GAP > right;
    const place = { from: before ? at - wide - GAP : at + GAP, to: before ? at - GAP : at + wide + GAP };
    let line = 0;
    while (taken.some((one) => one.line === line && one.from < place.to + 8 && one.to > place.from - 8)) line++;
    taken.push({ line, ...place });
    return { rule, words, line, before };
  });
}

const linesOf = (all: readonly HeadWords[]) => all.reduce((most, { line }) => Math.max(most, line + 1), 0);

/** The height that caption and words need above a picture of this width. */
export const headHeight = (context: CanvasRenderingContext2D, picture: Panels, width: number): number =>
  linesOf(headWords(context, picture, width)) * LINE + (picture.caption?.words ? CAPTION : 0);

/** Draws the caption and, nearest to the panels, the words of the rules. */
export function drawHead(
  context: CanvasRenderingContext2D,
  picture: Panels,
  { bottom }: Area,
  { width, place, left, right }: { width: number; place: (x: number) => number; left: number; right: number },
  colours: ChartColours,
): void {
  const all = headWords(context, picture, width);
  context.textBaseline = 'middle';
  context.textAlign = 'left';
  for (const { rule, words, line, before } of all) {
    const at = Math.min(right, Math.max(left, place(rule.at)));
    context.fillStyle = rule.tone === 'ochre' ? colours.ochreText : colourOf(rule.tone, colours);
    const from = before ? at - context.measureText(words).width - GAP : at + GAP;
    context.fillText(words, from, bottom - LINE / 2 - line * LINE);
  }
  const { caption } = picture;
  if (!caption?.words) return;
  context.font = "500 17px 'IBM Plex Serif', serif";
  context.fillStyle = colours.green;
  const wide = context.measureText(caption.words).width;
  const from = Math.min(right - wide, Math.max(left, place(caption.at) - wide / 2));
  context.fillText(caption.words, from, bottom - linesOf(all) * LINE - CAPTION / 2);
}
