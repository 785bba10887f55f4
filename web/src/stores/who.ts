import { useLocalStorage } from '@vueuse/core';
import { defineStore } from 'pinia';

/** Who is working: written beside every change and decision. A name, not an account; kept in this browser. */
export const useWho = defineStore('who', () => {
  const name = useLocalStorage('verdict.who', 'bench 1');
  return { name };
});
