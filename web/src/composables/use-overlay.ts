import { ref } from 'vue';

/** What can lie over any page. */
export type Overlay = 'keys' | 'search' | 'help';

/** One page, one overlay at a time; those that were asked for once stay. */
const asked = ref<Overlay[]>([]);
const open = ref<Overlay | null>(null);

export function useOverlay() {
  function show(name: Overlay): void {
    if (!asked.value.includes(name)) asked.value = [...asked.value, name];
    open.value = name;
  }
  return { asked, open, show };
}
