import { fittedLaw, type FittedLaw } from '../../distributions/fit/fitted-law.js';
import { isRefusal } from '../../distributions/family.js';
import { distribution, familyByName } from '../../distributions/registry.js';
import {
  chanceOfAlike,
  chanceOfIndependent,
  DECOYS,
  placeOfSubject,
  type LineUpDraws,
} from '../../probability-plot/line-up.js';
import { sheetCell, unpackCell, type SheetCell } from '../../probability-plot/sheet-cell.js';
import type { Sample } from '../../readings/sample.js';
import { defineAnalysis } from '../../road/analysis.js';
import { whyCensored } from '../../road/beyond-limits.js';
import { unavailable, whyNot } from '../../road/cautions.js';
import { orderBook } from '../../road/order-book.js';
import { fittingOf } from './family-settings.js';
import type { LineUpResult, LineUpViewer } from './line-up-result.js';
import { lineUpRequest, lineUpSentence, type LineUpRequest as Request } from './line-up-settings.js';
import { lineUpFinding, lineUpNotes } from './line-up-words.js';

/** Fewer marks than these are all alike. */
const LEAST_N = 5;

/** Those who have picked, the one before this sheet last. */
function viewersOf({ seed, pick, seen, before }: Request): LineUpViewer[] {
  const all = [...before, ...(pick === undefined ? [] : [{ seed, pick, seen }])];
  return all.map((one) => {
    const place = placeOfSubject(one.seed) + 1;
    return { pick: one.pick, place, right: one.pick === place, seen: one.seen };
  });
}

/** All that is known without the pictures. Where nobody has picked and nobody asks for the key, it says nothing of where the readings stand. */
function judged(settings: Request, sample: Sample, law: FittedLaw): LineUpResult {
  const { missing, setAside, unit, resolution, values } = sample;
  const viewers = viewersOf(settings);
  const fresh = viewers.filter(({ seen }) => !seen);
  const counted = fresh.length > 0 ? fresh : viewers;
  const right = counted.filter((viewer) => viewer.right).length;
  const told = settings.pick !== undefined || settings.part === 'key';
  const none = counted.length === 0;
  const { notes: lawNotes, ...drawnFrom } = law;
  const base: LineUpResult = {
    ...{ available: true, n: values.length, missing, setAside, unit, resolution, alpha: settings.alpha },
    law: drawnFrom,
    cells: null,
    place: told ? placeOfSubject(settings.seed) + 1 : null,
    viewers,
    counted: counted.length,
    right,
    pValue: none ? null : chanceOfAlike(counted.length, right),
    pMethod: none ? null : 'exact',
    pIndependent: none ? null : chanceOfIndependent(counted.length, right),
    notes: lawNotes,
  };
  return { ...base, notes: [...lawNotes, ...lineUpNotes(sample, base)] };
}

/** Would an eye pick the readings out from among samples of the distribution? The line-up of Buja and others (2009). */
export const lineUpAnalysis = defineAnalysis<Request, LineUpResult>({
  id: 'line-up',
  version: 1,
  name: 'Line-up',
  title: 'can viewers pick the plot of a column among 19 simulated ones (line-up and key in separate files)',
  request: lineUpRequest,
  method: lineUpSentence,
  resolve: (settings) => settings,
  *run(settings, sample) {
    const reason = whyNot(sample, LEAST_N, 'a line-up') ?? whyCensored(sample, 'a line-up');
    if (reason) return unavailable(sample, reason);
    const sorted = Float64Array.from(sample.values).sort();
    const fitting = fittingOf(settings);
    const law = fittedLaw(sorted, fitting);
    if (isRefusal(law)) return unavailable(sample, law.refused);
    const found = judged(settings, sample, law);
    if (settings.part === 'key') return found;
    const { as, seed } = settings;
    const book = orderBook(seed, 1);
    const step = sample.resolution;
    const input: LineUpDraws = { n: sorted.length, fitting, parameters: law.parameters, step, as };
    book.add({ kernel: 'line-up-decoys', input }, DECOYS);
    const answers = yield { partial: found, orders: book.orders };
    const cells: SheetCell[] = answers[0]!.map(unpackCell);
    const own = sheetCell(as, sorted, distribution(familyByName(law.family), law.parameters), step);
    cells.splice(placeOfSubject(seed), 0, own);
    return { ...found, cells };
  },
  finding: lineUpFinding,
});
