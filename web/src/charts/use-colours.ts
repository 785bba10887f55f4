import { useMediaQuery, useMutationObserver } from '@vueuse/core';
import { onMounted, shallowRef, watch, type Ref } from 'vue';
import { readColours, type ChartColours } from './theme.js';

/** The colours of the page where an element stands; read again when the ground turns dark or light, and for printing. */
export function useColours(element: Ref<Element | undefined>): Ref<ChartColours | null> {
  const colours = shallowRef<ChartColours | null>(null);
  const look = () => void (element.value && (colours.value = readColours(element.value)));
  onMounted(look);
  // The class on the root decides the ground; the observer runs once it is there.
  useMutationObserver(document.documentElement, look, { attributes: true, attributeFilter: ['class'] });
  watch(useMediaQuery('print'), look);
  return colours;
}
