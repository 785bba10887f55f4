import { computed } from 'vue';
import { useAddress } from '../../../workbench/run/use-address.js';

/** What of the fit is shown beside the plot. */
const SHOWN = ['chosen', 'all', 'found', 'families'] as const;
export type Shown = (typeof SHOWN)[number];

/** It stands in the address, like what is asked. */
export function useShown() {
  const address = useAddress();
  const shown = computed<Shown>({
    get: () => SHOWN.find((one) => one === address.textOf('show')) ?? 'chosen',
    set: (one) => void address.change({ show: one === 'chosen' ? undefined : one }),
  });
  return { shown };
}
