<script setup lang="ts">
import type { DerivationKind } from '@verdict/core';

/** What can be done with the table, as words; each menu can be reached and used with the keys alone. */
defineProps<{
  title: string;
  columnName: string;
  rowsChosen: number;
  locked: boolean;
  arranged: boolean;
  finding: boolean;
}>();
const emit = defineEmits<{
  open: [];
  paste: [];
  add: [kind: DerivationKind | 'empty' | 'stack' | 'spread' | 'duplicate'];
  column: [what: 'left' | 'right' | 'remove' | 'duplicate'];
  rows: [what: 'above' | 'below' | 'remove' | 'fill' | 'aside' | 'back' | 'subset'];
  arrange: [];
  find: [];
  save: [];
}>();

const NEW: { id: DerivationKind | 'empty' | 'stack' | 'spread'; title: string; apart?: boolean }[] = [
  { id: 'empty', title: 'to type into' },
  { id: 'formula', title: 'by a formula', apart: true },
  { id: 'standard-score', title: 'standard scores' },
  { id: 'distance', title: 'distance from the mean' },
  { id: 'rank', title: 'ranks' },
  { id: 'share', title: 'a share of trials' },
  { id: 'rounded', title: 'rounded to a step' },
  { id: 'made-up', title: 'made-up values', apart: true },
  { id: 'stack', title: 'columns stacked', apart: true },
  { id: 'spread', title: 'a column spread by a label' },
];
</script>

<template>
  <div class="title" role="toolbar" aria-label="Table">
    <h2>{{ title }}</h2>
    <button class="plain" :aria-pressed="finding" @click="emit('find')">Find</button>
    <button class="plain" :aria-pressed="arranged" @click="emit('arrange')">Arrange</button>
    <template v-if="!locked">
      <button class="plain" @click="emit('open')">Open a file</button>
      <button class="plain" @click="emit('paste')">Paste</button>
      <el-dropdown trigger="click" @command="(id: never) => emit('add', id)">
        <button class="plain">New column ⌄</button>
        <template #dropdown>
          <el-dropdown-menu>
            <el-dropdown-item v-for="{ id, title: words, apart } in NEW" :key="id" :command="id" :divided="apart">{{
              words
            }}</el-dropdown-item>
          </el-dropdown-menu>
        </template>
      </el-dropdown>
      <el-dropdown v-if="columnName" trigger="click" @command="(what: never) => emit('column', what)">
        <button class="plain">Column ⌄</button>
        <template #dropdown>
          <el-dropdown-menu>
            <el-dropdown-item command="left">move {{ columnName }} left</el-dropdown-item>
            <el-dropdown-item command="right">move {{ columnName }} right</el-dropdown-item>
            <el-dropdown-item command="duplicate">duplicate {{ columnName }}</el-dropdown-item>
            <el-dropdown-item command="remove" divided>remove {{ columnName }}</el-dropdown-item>
          </el-dropdown-menu>
        </template>
      </el-dropdown>
      <el-dropdown trigger="click" @command="(what: never) => emit('rows', what)">
        <button class="plain">Rows ⌄</button>
        <template #dropdown>
          <el-dropdown-menu>
            <el-dropdown-item command="above">insert {{ rowsChosen }} above</el-dropdown-item>
            <el-dropdown-item command="below">insert {{ rowsChosen }} below</el-dropdown-item>
            <el-dropdown-item command="remove">remove {{ rowsChosen }}</el-dropdown-item>
            <el-dropdown-item command="fill" divided>fill the first cell down</el-dropdown-item>
            <el-dropdown-item command="aside">set the chosen readings aside …</el-dropdown-item>
            <el-dropdown-item command="back">put the chosen readings back</el-dropdown-item>
            <el-dropdown-item command="subset" divided>a new study of the rows shown or chosen</el-dropdown-item>
          </el-dropdown-menu>
        </template>
      </el-dropdown>
    </template>
    <span v-else class="soft">ruled: reopen in Verdict to change anything</span>
    <button class="plain" @click="emit('save')">Save a copy</button>
  </div>
</template>

<style scoped>
.title {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 8px;
  align-items: baseline;
  padding: 10px 16px;
}
.title h2 {
  flex: 1;
  margin: 0;
  font-size: 15px;
  font-weight: 600;
  white-space: nowrap;
}
.title button {
  font-size: 13px;
}
.title button[aria-pressed='true'] {
  color: var(--green);
}
</style>
