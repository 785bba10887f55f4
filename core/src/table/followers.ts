import { sourcesOf, type Derivation } from './derivation.js';

interface Following {
  id: string;
  name: string;
  derivation: Derivation | null;
  frequencies: string | null;
}

const needsOf = ({ derivation, frequencies }: Following): string[] => [
  ...(derivation ? sourcesOf(derivation) : []),
  ...(frequencies === null ? [] : [frequencies]),
];

const MOST_NAMED = 8;
const listed = (names: readonly string[]) =>
  names.length > MOST_NAMED
    ? `${names.slice(0, MOST_NAMED).join(', ')} and ${names.length - MOST_NAMED} more`
    : names.join(', ');

/** Why these columns cannot leave the table: all that stay and follow one of them, with what to do. Null when they can. */
export function followersObjection(standing: readonly Following[], going: readonly string[]): string | null {
  const goes = (id: string | null) => id !== null && going.includes(id);
  const staying = standing.filter(({ id }) => !goes(id));
  const nameOf = (id: string) => standing.find((column) => column.id === id)?.name ?? '';
  const follow = staying.filter((column) => needsOf(column).some(goes));
  if (follow.length === 0) return null;
  const said = follow.map(
    (column) => `${column.name} depends on ${needsOf(column).filter(goes).map(nameOf).join(' and ')}`,
  );
  const namesOf = (columns: readonly Following[]) => listed(columns.map(({ name }) => name));
  const derived = follow.filter(({ derivation }) => derivation && sourcesOf(derivation).some(goes));
  const counted = follow.filter((column) => !derived.includes(column));
  const todo = [
    derived.length ? `Freeze or remove ${namesOf(derived)} first.` : '',
    counted.length ? `Let each row of ${namesOf(counted)} be one reading first.` : '',
  ];
  return `${listed(said)}. ${todo.filter(Boolean).join(' ')}`;
}
