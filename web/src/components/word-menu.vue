<script setup lang="ts">
import { onClickOutside } from '@vueuse/core';
import { nextTick, ref, useId } from 'vue';

/**
 * A word that opens a list of things to do. Own code, because the menu of the component library takes the focus back from what its
 * command has opened, and answers the arrow keys only when it was opened by a key.
 */
defineProps<{ title: string; items: readonly { id: string; title: string; apart?: boolean }[] }>();
const emit = defineEmits<{ choose: [id: string] }>();

const open = ref(false);
const root = ref<HTMLElement>();
const id = useId();
onClickOutside(root, () => (open.value = false));

const entries = () => [...(root.value?.querySelectorAll<HTMLElement>('[role=menuitem]') ?? [])];
const focusOn = (i: number) => {
  const all = entries();
  all[(i + all.length) % all.length]?.focus();
};

function toggle(): void {
  open.value = !open.value;
  if (open.value) void nextTick(() => focusOn(0));
}
function close(): void {
  open.value = false;
  root.value?.querySelector('button')?.focus();
}
/** The focus goes back to the word first: what the command opens may take it from there. */
function choose(item: string): void {
  close();
  emit('choose', item);
}
function onKey(event: KeyboardEvent): void {
  const at = entries().indexOf(document.activeElement as HTMLElement);
  const moves: Record<string, () => void> = {
    ArrowDown: () => focusOn(at + 1),
    ArrowUp: () => focusOn(at - 1),
    Home: () => focusOn(0),
    End: () => focusOn(-1),
    Escape: close,
    Tab: () => (open.value = false),
  };
  const move = moves[event.key];
  if (!move) return;
  if (event.key !== 'Tab') event.preventDefault();
  event.stopPropagation();
  move();
}
</script>

<template>
  <span ref="root" class="menu">
    <el-button
      link
      aria-haspopup="menu"
      :aria-expanded="open"
      :aria-controls="id"
      @click="toggle"
      @keydown.down.prevent="toggle"
    >
      {{ title }} <span aria-hidden="true">⌄</span>
    </el-button>
    <ul v-if="open" :id="id" role="menu" :aria-label="title" @keydown="onKey">
      <li v-for="item in items" :key="item.id" role="none" :class="{ apart: item.apart }">
        <el-button link role="menuitem" tabindex="-1" @click="choose(item.id)">{{ item.title }}</el-button>
      </li>
    </ul>
  </span>
</template>

<style scoped>
.menu {
  position: relative;
}
ul {
  position: absolute;
  z-index: 10;
  top: 100%;
  right: 0;
  min-width: 200px;
  margin: 4px 0 0;
  border: 1px solid var(--line);
  border-radius: 6px;
  padding: 4px;
  background: var(--card);
  box-shadow: 0 4px 14px rgb(0 0 0 / 12%);
  list-style: none;
}
li.apart {
  margin-top: 4px;
  border-top: 1px solid var(--line);
  padding-top: 4px;
}
li .el-button.is-link {
  --el-button-text-color: var(--ink);
  justify-content: start;
  width: 100%;
  padding: 5px 10px;
  font-size: 13px;
  white-space: nowrap;
}
li .el-button:hover,
li .el-button:focus {
  background: var(--tint);
}
</style>
