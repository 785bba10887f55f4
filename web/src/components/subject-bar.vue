<script setup lang="ts">
import { formatFigure, groupThousands } from '@verdict/core/format';
import { alphaSetting } from '@verdict/core/road';
import { computed, ref } from 'vue';
import { useRoute } from 'vue-router';
import { useStudy } from '../stores/study.js';
import PartsChoice from './parts-choice.vue';
import RecordDrawer from './record-drawer.vue';
import DraftField from './draft-field.vue';

/** The subject is chosen once: column and level stand here, above every stage. */
const store = useStudy();
const route = useRoute();
const recordOpen = ref(false);
const levelWrong = ref('');

const subjects = computed(() => (store.study?.columns ?? []).filter(({ kind }) => kind !== 'label'));
const named = ({ name, unit }: { name: string; unit: string }) => (unit ? `${name}, ${unit}` : name);

const readings = computed(() => {
  const sample = store.sample;
  if (!sample) return '';
  const n = sample.values.length;
  const others = [
    sample.setAside ? `${groupThousands(sample.setAside)} set aside` : '',
    sample.missing ? `${groupThousands(sample.missing)} missing` : '',
    sample.unreadable ? `${groupThousands(sample.unreadable)} not a number` : '',
    sample.beyondLimit ? `${groupThousands(sample.beyondLimit)} beyond a limit` : '',
  ].filter(Boolean);
  return [`${groupThousands(n)} ${n === 1 ? 'reading' : 'readings'}`, ...others].join(', ');
});

const limits = computed(() => {
  const column = store.subject;
  if (!column || !store.sample) return '';
  const figure = (value: number) => formatFigure(value, 'reading', store.sample!.resolution);
  const { lowerLimit: lower, upperLimit: upper } = column;
  if (lower !== null && upper !== null) return `limits ${figure(lower)} – ${figure(upper)}`;
  if (lower !== null) return `lower limit ${figure(lower)}`;
  return upper !== null ? `upper limit ${figure(upper)}` : '';
});

const saved = computed(() =>
  store.waiting.length ? `${store.waiting.length} not stored yet` : `stored, change ${store.study?.revision}`,
);

function setSubject(event: Event): void {
  store.change({ kind: 'change-study', subject: (event.target as HTMLSelectElement).value });
}
function setLevel(typed: string): void {
  const text = typed.replace(',', '.').trim();
  const level = alphaSetting.safeParse(text === '' ? NaN : Number(text));
  levelWrong.value = level.success ? '' : level.error.issues[0]!.message;
  if (level.success && level.data !== store.study?.alpha) store.change({ kind: 'change-study', alpha: level.data });
}
</script>

<template>
  <div class="bar no-print">
    <template v-if="subjects.length">
      <label class="soft"
        >Looking at
        <select
          class="field"
          aria-label="Subject"
          :value="store.study?.subject"
          :disabled="store.ruled"
          @change="setSubject"
        >
          <option v-for="column in subjects" :key="column.id" :value="column.id">{{ named(column) }}</option>
        </select></label
      >
      <PartsChoice v-if="route.name === 'shape'" />
      <span class="rule"></span>
      <label class="soft"
        >level
        <DraftField
          class="field"
          :class="{ wrong: levelWrong }"
          aria-label="Level"
          size="5"
          :disabled="store.ruled"
          :value="String(store.study?.alpha)"
          @commit="setLevel"
      /></label>
      <span v-if="levelWrong" class="said-wrong" role="alert">{{ levelWrong }}</span>
      <span class="rule"></span>
      <span class="soft">{{ readings }}</span>
    </template>
    <span v-else class="soft">No column of numbers yet</span>
    <span class="room"></span>
    <template v-if="route.name === 'readings'">
      <span class="soft" role="status">{{ saved }}</span>
      <button
        class="plain"
        :disabled="!store.study?.canUndo || store.ruled"
        :title="store.study?.canUndo ?? ''"
        @click="store.undo()"
      >
        Undo
      </button>
      <button
        class="plain"
        :disabled="!store.study?.canRedo || store.ruled"
        :title="store.study?.canRedo ?? ''"
        @click="store.redo()"
      >
        Redo
      </button>
      <button class="plain" @click="recordOpen = true">Record</button>
    </template>
    <template v-else>
      <span v-if="store.sample?.resolution" class="soft"
        >resolution {{ store.sample.resolution }} {{ store.sample.unit }}</span
      >
      <span v-if="limits" class="soft">{{ limits }}</span>
    </template>
    <RecordDrawer v-model="recordOpen" />
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  flex-wrap: wrap;
  flex: 0 0 auto;
  min-height: 46px;
  align-items: center;
  gap: 4px 10px;
  padding: 2px 20px;
}
.rule {
  width: 1px;
  height: 15px;
  background: var(--line);
}
.room {
  flex: 1;
}
select.field {
  max-width: 260px;
}
</style>
