import { useAddress } from '../run/use-address.js';

type Named = { first?: string; second?: string };

/** Which two of the groups are meant, where something is about two: it stands in the address. */
export function useTwoGroups(names: () => readonly string[]) {
  const address = useAddress();
  const named = (which: 'first' | 'second'): Named => {
    // Another split has others.
    const text = address.textOf(which);
    return text !== undefined && names().includes(text) ? { [which]: text } : {};
  };
  const asked = (): Named => {
    const chosen: Named = { ...named('first'), ...named('second') };
    return chosen.first !== undefined && chosen.first === chosen.second ? { first: chosen.first } : chosen;
  };
  /** One of the two is another group: chosen twice, they change places. */
  function choose(which: 'first' | 'second', name: string, now: Named): void {
    const other = which === 'first' ? 'second' : 'first';
    void address.change({ [which]: name, ...(name === now[other] ? { [other]: now[which] } : {}) });
  }
  return { asked, choose };
}
