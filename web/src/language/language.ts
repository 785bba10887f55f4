import { readCell, rewritten, type NumberFormat } from '@verdict/core/readings';
import { useLocalStorage } from '@vueuse/core';
import { computed, shallowRef } from 'vue';
import { decimalMarkOf, formatOf, patternOfNames, withMark } from './figures.js';

/**
 * The reader's language for numbers and dates: one setting for everything that is shown. What leaves the page (files, the clipboard, the address) keeps the
 * point, and so does a formula.
 */

/** The chosen language as a tag of BCP 47; empty: the browser's. Kept in this browser. */
export const chosenLanguage = useLocalStorage('verdict.language', '');

/** A tag that the browser cannot read would stop every page: it is ignored. */
function known(tag: string): string | undefined {
  try {
    return Intl.getCanonicalLocales(tag)[0];
  } catch {
    return undefined;
  }
}
const browserLanguage = () => globalThis.navigator?.language;
const language = computed(() => known(chosenLanguage.value || browserLanguage() || '') ?? 'en');

export const decimalMark = computed(() => decimalMarkOf(language.value));

const names = shallowRef<() => readonly string[]>(() => []);
/** Looked for only when a text has to be turned. */
const asWritten = computed(() => patternOfNames(names.value()));
/** Names of columns and labels of the open study, which are never taken for figures: “layer 2.5” stays as it is. */
export const keepAsWritten = (of: () => readonly string[]): void => void (names.value = of);

/** A text with figures as the reader writes them. */
export const local = (text: string): string =>
  decimalMark.value === 'point' ? text : withMark(text, decimalMark.value, asWritten.value);

// Made once it is needed: the first costs 25 ms. Digits stay those of the figures.
const times = computed(
  () => new Intl.DateTimeFormat(language.value, { dateStyle: 'medium', timeStyle: 'short', numberingSystem: 'latn' }),
);

/** A moment as the reader's language writes it, in the analyst's own time zone: "23 Nov 2026, 14:05". Files hold moments otherwise: sheet/sheet.ts. */
export const formatTime = (iso: string): string => times.value.format(new Date(iso));

/** A cell of the table as the reader writes numbers. What is no number stays as it was written. */
export const localCell = (text: string, format: NumberFormat): string =>
  rewritten(text, format, { decimal: decimalMark.value, thousands: 'none' });

/**
 * What the reader typed into a cell, in the marks of its column. A text that is no number in the reader's notation is stored as typed, and the column's own
 * notation reads it.
 */
export function typedCell(text: string, format: NumberFormat): string {
  const asItIs = format.decimal === decimalMark.value && readCell(text, format).kind !== 'text';
  return asItIs ? text : rewritten(text, formatOf(decimalMark.value), format);
}

/** Languages that can be chosen, each with how it writes numbers and dates. */
export const LANGUAGES = ['en-GB', 'en-US', 'de', 'fr', 'es', 'it', 'nl', 'pl', 'pt', 'sv', 'cs'] as const;

/** How a language writes numbers and dates: "2,5 · 23.11.2026". */
function example(tag: string): string {
  const day = new Intl.DateTimeFormat(tag, { dateStyle: 'medium', numberingSystem: 'latn' });
  return `${withMark('2.5', decimalMarkOf(tag))} · ${day.format(new Date(2026, 10, 23))}`;
}

/** A language to choose, with its example: "Deutsch: 2,5 · 23.11.2026". */
export const languageWords = (tag: string): string =>
  `${new Intl.DisplayNames(tag, { type: 'language' }).of(tag) ?? tag}: ${example(tag)}`;
export const browserLanguageWords = (): string => `as the browser: ${example(known(browserLanguage() ?? '') ?? 'en')}`;
