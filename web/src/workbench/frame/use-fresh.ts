import { watch } from 'vue';
import { useRoute } from 'vue-router';
import { useAddress } from '../run/use-address.js';

/** Removes settings of one column from the address when another is selected. */
export function useFresh(column: () => string | undefined, ofOneColumn: RegExp): void {
  const route = useRoute();
  const address = useAddress();
  watch(column, (now, before) => {
    if (now === undefined || before === undefined) return;
    const said = Object.keys(route.query).filter((key) => ofOneColumn.test(key));
    if (said.length > 0) void address.change(Object.fromEntries(said.map((key) => [key, undefined])));
  });
}
