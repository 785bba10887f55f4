<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { local } from '../../language/language.js';
import { useStudy } from '../../stores/study.js';

/** Asks for the reason why a reading is set aside, or left with a reason; without one nothing is done. */
const props = withDefaults(
  defineProps<{
    open: boolean;
    what: string;
    many?: boolean;
    /** Looked at and left in, in place of set aside. */
    leaving?: boolean;
    /** Reasons that are often the one. */
    usual?: readonly string[];
  }>(),
  { many: false, leaving: false, usual: () => [] },
);
const emit = defineEmits<{ done: [reason: string]; leave: [] }>();
const store = useStudy();
const reason = ref('');
const field = ref<{ focus(): void }>();
const earlier = computed(() => {
  const marked = (props.leaving ? store.study?.leftIn : store.study?.setAside) ?? [];
  const written = new Set(marked.map((reading) => reading.reason).slice(-5));
  return [...new Set([...props.usual, ...written])];
});
const title = computed(() => {
  const readings = props.many ? 'readings' : 'a reading';
  return props.leaving ? `Keep ${readings} with a reason` : `Set ${readings} aside`;
});
const [they, are] = [computed(() => (props.many ? 'they' : 'it')), computed(() => (props.many ? 'are' : 'is'))];

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
  <el-dialog :model-value="open" :title="title" width="460" @close="emit('leave')" @opened="field?.focus()">
    <p v-if="leaving">
      {{ local(what) }}: {{ they }} {{ many ? 'stay' : 'stays' }} in all calculations. The reason for keeping
      {{ many ? 'suspected outliers' : 'a suspected outlier' }} is recorded and printed in the report.
    </p>
    <p v-else>
      {{ local(what) }}: {{ they }} {{ many ? 'stay' : 'stays' }} in the table, struck through, and {{ are }} excluded
      from all calculations until restored.
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
      {{ usual.length ? 'Often:' : 'Earlier reasons:' }}
      <el-button v-for="text in earlier" :key="text" link @click="reason = text">{{ text }}</el-button>
    </p>
    <template #footer>
      <el-button @click="emit('leave')">{{ leaving ? 'Give no reason' : 'Keep it' }}</el-button>
      <el-button type="primary" :disabled="!reason.trim()" @click="finish">{{
        leaving ? 'Keep' : 'Set aside'
      }}</el-button>
    </template>
  </el-dialog>
</template>
