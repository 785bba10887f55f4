<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { useStudy } from '../stores/study.js';

/** Asks for the reason; without one nothing is set aside. */
const props = defineProps<{ open: boolean; what: string; many?: boolean }>();
const emit = defineEmits<{ done: [reason: string]; leave: [] }>();
const store = useStudy();
const reason = ref('');
const field = ref<{ focus(): void }>();
const earlier = computed(() => [...new Set((store.study?.setAside ?? []).map((reading) => reading.reason))].slice(-5));

watch(
  () => props.open,
  (open) => {
    if (open) reason.value = '';
  },
);
const finish = () => {
  if (reason.value.trim()) emit('done', reason.value.trim());
};
</script>

<template>
  <el-dialog
    :model-value="open"
    :title="many ? 'Set readings aside' : 'Set a reading aside'"
    width="460"
    @close="emit('leave')"
    @opened="field?.focus()"
  >
    <p>
      {{ what }}: {{ many ? 'they stay' : 'it stays' }} in the table, struck through, and {{ many ? 'are' : 'is' }} left
      out of every calculation until put back.
    </p>
    <label class="reason"
      >Why?
      <el-input
        ref="field"
        v-model="reason"
        class="written"
        maxlength="1000"
        aria-label="Reason"
        @keydown.enter="finish"
      />
    </label>
    <p v-if="earlier.length" class="soft earlier">
      Earlier reasons:
      <el-button v-for="text in earlier" :key="text" link @click="reason = text">{{ text }}</el-button>
    </p>
    <template #footer>
      <el-button @click="emit('leave')">Leave it in</el-button>
      <el-button type="primary" :disabled="!reason.trim()" @click="finish">Set aside</el-button>
    </template>
  </el-dialog>
</template>
