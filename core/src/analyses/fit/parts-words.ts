import { equalsP } from '../../numeric/format.js';
import { holmLevel } from '../../road/cautions.js';
import { holm } from '../../numeric/holm.js';
import type { Piece } from '../../road/analysis.js';
import { foundParts, partsWords, type InParts } from '../../road/in-parts.js';
import { listed } from '../../numeric/grammar.js';

/** What the test of one part came to: null while its p is not known. Where only coarse rounding speaks against the family, p with the rounding allowed for. */
export interface PartTest {
  name: string;
  p: number | null;
}

/** That nothing can be done with any part. */
export const noneWords = (result: Pick<InParts<unknown>, 'by' | 'parts'>, done: string): string =>
  result.parts.length === 0
    ? `There are no readings that can be ${done}.`
    : `None of ${partsWords(result)} can be ${done}.`;

/** The tests of all parts together, adjusted by Holm's (1979) method. `against` is the distribution, with its article. */
export function testsFinding(
  result: Pick<InParts<unknown>, 'by' | 'parts'>,
  tests: readonly PartTest[],
  against: string,
  alpha: number,
): Piece[] {
  const none = noneWords(result, 'tested');
  if (tests.length === 0) return [{ text: none }];
  if (tests.some(({ p }) => p === null))
    return [{ text: `The p-values of ${partsWords(result)} are being simulated.` }];
  const passed = holm(
    tests.map(({ p }) => p!),
    alpha,
  );
  const shared = holmLevel(alpha, tests.length);
  const said = ({ name, p }: PartTest) => `${name} (${equalsP(p!, alpha)})`;
  const departing = tests.filter((_, i) => passed[i]);
  if (departing.length === 0) {
    const least = tests.reduce((a, b) => (b.p! < a.p! ? b : a));
    const where =
      tests.length === 1
        ? ` in ${said(least)}, the only one of ${partsWords(result)} that can be tested (${shared}).`
        : ` in any of ${partsWords(result, tests.length)} (${shared}). Smallest p: ${said(least)}.`;
    return [{ text: 'No evidence against', strong: true, code: 'no-evidence' }, { text: ` ${against}${where}` }];
  }
  const others = tests.length - departing.length;
  const rest = others === 0 ? '' : `. No evidence in the other${others === 1 ? '' : ` ${others}`}`;
  return [
    { text: 'The readings depart from', strong: true, code: 'evidence' },
    { text: ` ${against} in ${listed(departing.map(said))}${rest} (${shared}).` },
  ];
}

/** How many readings of which part lie outside its band; `against` with its article, which each part has estimated or is claimed. */
export function bandsFinding<R extends { band: { kind: string; outsideCount: number } | null }>(
  result: InParts<R>,
  against: string,
  estimated: boolean,
): Piece[] {
  const found = foundParts(result);
  const lead = `${partsWords(result, found.length)}, each plotted against ${estimated ? `its own fitted ${against.replace(/^an? /, '')}` : `the claimed ${against.replace(/^an? /, '')}`} distribution`;
  const banded = found.flatMap(({ name, result: { band } }) => (band && band.kind !== 'line' ? [{ name, band }] : []));
  if (banded.length === 0) return [{ text: `${lead}.` }];
  const outside = banded.filter(({ band }) => band.outsideCount > 0);
  const words = outside.map(({ name, band }) => `${band.outsideCount} in ${name}`);
  return outside.length === 0
    ? [
        { text: `${lead}: ` },
        { text: 'no readings outside', strong: true, code: 'no-evidence' },
        { text: ' the band.' },
      ]
    : [{ text: `${lead}; outside the band: ` }, { text: listed(words), strong: true, code: 'figure' }, { text: '.' }];
}
