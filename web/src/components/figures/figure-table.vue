<script setup lang="ts">
import type { FoundFigure } from '@verdict/core/road';
import { computed, ref } from 'vue';
import { local } from '../../language/language.js';
import FigureMeaning from './figure-meaning.vue';
import FigureName from './figure-name.vue';

/** Figures one below the other, each of which explains itself; several results stand side by side under their names. */
const props = defineProps<{
  rows: readonly FoundFigure[];
  heads?: readonly string[];
}>();

const asked = ref<string | null>(null);
const explained = computed(() => props.rows.find(({ key }) => key === asked.value) ?? null);
const ask = (key: string) => (asked.value = asked.value === key ? null : key);
</script>

<template>
  <div class="figure-table">
    <div class="scroll">
      <table class="figures" :class="{ beside: heads }">
        <thead v-if="heads">
          <tr>
            <td></td>
            <th v-for="head in heads" :key="head" class="number">{{ local(head) }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :key="row.key">
            <td>
              <FigureName :figure="row" :open="asked === row.key" @ask="ask(row.key)" />
              <span v-if="row.note" class="soft note">{{ local(row.note) }}</span>
            </td>
            <td v-for="(text, i) in row.texts" :key="i" class="number">{{ local(text) }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <FigureMeaning v-if="explained" :figure="explained"><slot :figure="explained" /></FigureMeaning>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
.beside td:first-child,
.beside th:first-child {
  position: sticky;
  left: 0;
  background: var(--figure-ground, var(--paper));
}
table.figures td {
  padding-top: 4px;
  padding-bottom: 4px;
}
.note {
  margin-left: 6px;
  font-size: 12px;
}
</style>
