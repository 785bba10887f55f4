import { listed } from '../numeric/grammar.js';
import { completed, familyByName } from '../distributions/registry.js';
import { transformationWords } from '../transform/words.js';
import { sourcesOf, type Derivation } from './derivation.js';
import { shownFormula, type NamedColumn } from './formula.js';

/** What a derived column is, in a few words that fit under its name: "standard score of thickness, n − 1". */
export function derivationWords(derivation: Derivation, columns: readonly NamedColumn[]): string {
  const nameOf = (id: string) => columns.find((column) => column.id === id)?.name ?? 'a removed column';
  switch (derivation.kind) {
    case 'formula':
      return `= ${shownFormula(derivation.expression, columns)}`;
    case 'standard-score':
      return `standard score of ${nameOf(derivation.source)}, ${derivation.divisor === 'sample' ? 'n − 1' : 'n'}`;
    case 'given-score':
      return `standard score of ${nameOf(derivation.source)}, given mean ${derivation.mean} and SD ${derivation.sd}`;
    case 'distance':
      return `${derivation.absolute ? 'absolute ' : ''}deviation of ${nameOf(derivation.source)} from its mean`;
    case 'rank':
      return `rank of ${nameOf(derivation.source)}`;
    case 'share': {
      const { source, trials } = derivation;
      return `proportion ${nameOf(source)} of ${typeof trials === 'number' ? trials : nameOf(trials)}`;
    }
    case 'transformed':
      return `${transformationWords(derivation.by, derivation.lambda)} of ${nameOf(derivation.source)}`;
    case 'rounded':
      return `${nameOf(derivation.source)} rounded to ${derivation.step}`;
    case 'made-up': {
      const { family, parameters, step, seed } = derivation;
      const found = familyByName(family);
      const full = completed(found, parameters);
      const said = found.parameters.map((p) => `${p.title} ${full[p.name]}`).join(', ');
      return `simulated: ${found.title}, ${said}${step === null ? '' : `, rounded to ${step}`}, seed ${seed}`;
    }
  }
}

/** Why nothing is typed into a derived column, and what to do: "double follows mass; freeze it to type into it." */
export function followsSentence(
  { name, derivation }: { name: string; derivation: Derivation },
  columns: readonly NamedColumn[],
): string {
  const names = sourcesOf(derivation).flatMap((id) => columns.find((column) => column.id === id)?.name ?? []);
  const why =
    derivation.kind === 'made-up' ? 'is simulated from its seed' : `is calculated from ${listed(names) || 'a formula'}`;
  return `${name} ${why}. Freeze it to edit it.`;
}
