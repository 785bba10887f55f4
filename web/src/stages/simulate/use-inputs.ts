import { inputNames, MOST_INPUTS, propagateAnalysis, readCorrelations, type InputAsked } from '@verdict/core/analyses';
import { familyByName, FAMILIES, parameterFaults, type Parameters } from '@verdict/core/distributions';
import { NO_READINGS } from '@verdict/core/readings';
import { computed } from 'vue';
import { useStudy } from '../../stores/study.js';
import { unchanged } from '../../workbench/run/unchanged.js';
import { useAddress } from '../../workbench/run/use-address.js';
import { useRun } from '../../workbench/run/use-run.js';

/** An input of the formula, as the address has it. */
export interface InputRow {
  name: string;
  /** The id of the column it is drawn from; null for a law. */
  column: string | null;
  family: string;
  parameters: Parameters;
}

const usualOf = (family: string): Parameters =>
  Object.fromEntries(familyByName(family).parameters.map(({ name, usual }) => [name, usual]));

/** "normal 10 0.4" as a law; the usual normal where it cannot be read. */
function lawOf(text: string): { family: string; parameters: Parameters } {
  const [named = 'normal', ...numbers] = text.split(' ');
  const family = FAMILIES.some((one) => one.family === named) ? named : 'normal';
  const usual = usualOf(family);
  const given = Object.fromEntries(
    Object.entries(usual).map(([name, value], i) => [name, numbers[i] === undefined ? value : Number(numbers[i])]),
  );
  return { family, parameters: parameterFaults(familyByName(family), given).length > 0 ? usual : given };
}

/** The formula with its inputs, each in the address under its name; and its result. */
export function useInputs() {
  const store = useStudy();
  const address = useAddress();
  const columns = computed(() => (store.study?.columns ?? []).filter(({ kind }) => kind !== 'label'));
  const formula = computed(() => address.textOf('propagate.formula') ?? '');
  const names = unchanged(() => inputNames(formula.value).slice(0, MOST_INPUTS));
  const rows = unchanged<InputRow[]>(() =>
    names.value.map((name) => {
      const text = address.textOf(`in.${name}`) ?? '';
      const column = text.startsWith('column ') ? text.slice('column '.length) : null;
      const known = columns.value.some(({ id }) => id === column) ? column : null;
      return { name, column: known, ...lawOf(known === null ? text : 'normal') };
    }),
  );
  const setLaw = (name: string, family: string, parameters: Parameters) =>
    void address.change({ [`in.${name}`]: [family, ...Object.values(parameters)].join(' ') });
  const setColumn = (name: string, id: string | null) =>
    void address.change({ [`in.${name}`]: id === null ? undefined : `column ${id}` });

  const together = computed(() => address.textOf('together') ?? '');
  const setTogether = (text: string) => void address.change({ together: text.trim() || undefined });
  const correlated = computed(() => readCorrelations(together.value));
  const problem = computed(() => ('problem' in correlated.value ? correlated.value.problem : ''));

  /** The columns that are drawn from, each once. */
  const drawn = unchanged(() => [...new Set(rows.value.flatMap(({ column }) => (column === null ? [] : [column])))]);
  const parts = unchanged(() => (drawn.value.length > 1 ? { beside: drawn.value.slice(1) } : null));
  const sample = computed(() => {
    const [first] = drawn.value;
    return first === undefined ? NO_READINGS : store.sampleInParts(first, parts.value);
  });
  const nameOf = (id: string) => columns.value.find((column) => column.id === id)!.name;
  const fixed = () => {
    if (rows.value.length === 0 || problem.value) return null;
    const inputs = Object.fromEntries(
      rows.value.map(({ name, column, family, parameters }): [string, InputAsked] => [
        name,
        column === null ? { family, parameters: { ...parameters } } : { column: nameOf(column) },
      ]),
    );
    const [first, ...others] = drawn.value;
    const correlations = 'correlations' in correlated.value ? correlated.value.correlations : [];
    return {
      ...{ inputs, formula: formula.value },
      ...(first === undefined ? {} : { column: nameOf(first) }),
      ...(others.length > 0 ? { beside: others.map(nameOf) } : {}),
      ...(correlations.length > 0 ? { correlations } : {}),
    };
  };
  const run = useRun(propagateAnalysis, sample, { name: 'propagate', fixed });
  const about = () => {
    const [first] = drawn.value;
    return first === undefined
      ? { column: null, sample: NO_READINGS }
      : { column: first, parts: parts.value, sample: sample.value! };
  };
  return { columns, rows, setLaw, setColumn, together, setTogether, problem, run, about, formula };
}
