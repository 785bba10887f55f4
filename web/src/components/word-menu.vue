<script setup lang="ts">
import { ArrowDown } from '@element-plus/icons-vue';
import { nextTick, ref } from 'vue';

/** A word that opens a list of things to do. */
const { title, items } = defineProps<{
  title: string;
  items: readonly { id: string; title: string; apart?: boolean }[];
}>();
const emit = defineEmits<{ choose: [id: string] }>();

const list = ref<{ $el: HTMLElement }>();
let chosen: string | undefined;

/** However it was opened, the arrow keys go on from the first entry. */
const begin = () => list.value?.$el.querySelector<HTMLElement>('[role=menuitem]')?.focus();
/** Emitted once the list is closed and the focus is back at the word: a dialog that the choice opens may then take the focus and keep it. */
async function end(): Promise<void> {
  await nextTick();
  if (chosen !== undefined) emit('choose', chosen);
  chosen = undefined;
}
</script>

<template>
  <el-dropdown
    trigger="click"
    placement="bottom-end"
    :show-arrow="false"
    :persistent="false"
    @command="(id: string) => (chosen = id)"
    @visible-change="(shown: boolean) => void (shown ? nextTick(begin) : end())"
  >
    <el-button link aria-haspopup="menu">
      {{ title }} <el-icon class="el-icon--right" size="11"><ArrowDown /></el-icon>
    </el-button>
    <template #dropdown>
      <el-dropdown-menu ref="list" :aria-label="title">
        <el-dropdown-item v-for="item in items" :key="item.id" :command="item.id" :divided="item.apart">
          {{ item.title }}
        </el-dropdown-item>
      </el-dropdown-menu>
    </template>
  </el-dropdown>
</template>

<style scoped>
.el-dropdown,
.el-dropdown .el-button {
  font-size: inherit;
}
.el-icon--right {
  margin-left: 3px;
}
</style>
