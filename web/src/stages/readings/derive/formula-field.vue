<script setup lang="ts">
import { bracketed, FUNCTIONS, type FormulaFault, type FormulaFunction } from '@verdict/core/table';
import { computed, nextTick, ref } from 'vue';

/** A formula being typed: column and function names are offered, and a fault is pointed at. */
const props = defineProps<{ columns: readonly { name: string }[]; fault: FormulaFault | null }>();
const text = defineModel<string>({ required: true });
const field = ref<HTMLInputElement>();
const caret = ref(0);
const chosen = ref(0);
const closed = ref(false);

/** The word being typed, up to the caret: a name in brackets may have blanks. */
const word = computed(() => /(\[[^\]]*|[\p{L}_][\p{L}\p{N}_]*)$/u.exec(text.value.slice(0, caret.value))?.[0] ?? '');
const offers = computed(() => {
  const typed = word.value.replace('[', '').toLowerCase();
  if (closed.value || word.value === '') return [];
  const names = props.columns.map(({ name }) => ({ insert: bracketed(name), label: name, about: 'column' }));
  const functions = Object.entries<FormulaFunction>(FUNCTIONS).map(([name, { written, does }]) => ({
    insert: `${name}(`,
    label: written,
    about: does,
  }));
  const all = word.value.startsWith('[') ? names : [...names, ...functions];
  const found = all.filter(({ label }) => label.toLowerCase().startsWith(typed));
  // A word that is complete needs no offer.
  return found.some(({ insert }) => insert === word.value) ? [] : found.slice(0, 7);
});

const look = () => (caret.value = field.value?.selectionStart ?? text.value.length);
function onInput(): void {
  closed.value = false;
  chosen.value = 0;
  look();
}
function take(i: number): void {
  const offer = offers.value[i];
  if (!offer) return;
  const before = text.value.slice(0, caret.value - word.value.length) + offer.insert;
  text.value = before + text.value.slice(caret.value).replace(/^\]/, '');
  caret.value = before.length;
  void nextTick(() => {
    field.value?.focus();
    field.value?.setSelectionRange(before.length, before.length);
  });
}
function onKey(event: KeyboardEvent): void {
  if (offers.value.length === 0) return;
  const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
  if (step) chosen.value = (chosen.value + step + offers.value.length) % offers.value.length;
  else if (event.key === 'Tab' || event.key === 'Enter') take(chosen.value);
  else if (event.key === 'Escape') {
    closed.value = true;
    event.stopPropagation();
  } else return;
  event.preventDefault();
}
</script>

<template>
  <div class="formula">
    <input
      ref="field"
      v-model="text"
      class="written"
      role="combobox"
      aria-label="Formula"
      aria-controls="formula-offers"
      :aria-expanded="offers.length > 0"
      :aria-activedescendant="offers.length ? `offer-${chosen}` : undefined"
      aria-autocomplete="list"
      autocomplete="off"
      spellcheck="false"
      maxlength="2000"
      placeholder="[breaking force] / 2"
      @input="onInput"
      @click="look"
      @keyup="look"
      @keydown="onKey"
      @blur="closed = true"
      @focus="closed = false"
    />
    <ul v-if="offers.length" id="formula-offers" role="listbox" aria-label="Names">
      <li
        v-for="(offer, i) in offers"
        :id="`offer-${i}`"
        :key="offer.insert"
        role="option"
        :aria-selected="i === chosen"
        :class="{ chosen: i === chosen }"
        @mousedown.prevent="take(i)"
      >
        {{ offer.label }} <span class="soft">{{ offer.about }}</span>
      </li>
    </ul>
    <p v-if="fault && text.trim() && !offers.length" class="said-wrong" role="alert">
      <span class="place">{{ text.slice(0, fault.at) }}<b>▲</b>{{ text.slice(fault.at) }}</span>
      {{ fault.message }} <span class="soft">(character {{ fault.at + 1 }})</span>
    </p>
  </div>
</template>

<style scoped>
.formula {
  position: relative;
}
.formula input {
  border: 1px solid var(--line);
  border-radius: 6px;
  padding: 7px 10px;
  background: var(--card);
  color: var(--ink);
  font: 14px var(--mono);
}
ul {
  position: absolute;
  z-index: 5;
  top: 40px;
  left: 0;
  right: 0;
  margin: 0;
  border: 1px solid var(--line);
  border-radius: 6px;
  padding: 4px;
  background: var(--card);
  box-shadow: 0 4px 14px rgb(0 0 0 / 12%);
  font: 13.5px/1.5 var(--sans);
  list-style: none;
}
li {
  padding: 3px 8px;
  border-radius: 4px;
  cursor: pointer;
}
li.chosen {
  background: var(--tint);
}
.place {
  display: block;
  font-family: var(--mono);
  white-space: pre-wrap;
}
.place b {
  color: var(--rust);
  font-size: 10px;
}
</style>
