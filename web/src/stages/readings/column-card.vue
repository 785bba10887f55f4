<script setup lang="ts">
import type { Change, StudyColumn } from '@verdict/contract';
import {
  formatFigure,
  isUnavailable,
  readNumber,
  type DescribeResult,
  type Sample,
  type Unavailable,
} from '@verdict/core';
import { computed, ref, toRef, watch } from 'vue';
import CautionNote from '../../components/caution-note.vue';
import { useAnalysis } from '../../composables/use-analysis.js';
import DraftField from '../../components/draft-field.vue';
import SetAsideList from '../../components/set-aside-list.vue';
import StripPicture from './strip-picture.vue';

/** The card of one column: what it is, its first figures, what is wrong with it, what is set aside. */
const props = defineProps<{
  column: StudyColumn;
  sample: Sample;
  cells: string[];
  aside: { row: number; reason: string; who: string }[];
  problems: { row: number; text: string }[];
  locked: boolean;
  cursorRow: number;
}>();
const emit = defineEmits<{ change: [change: Change]; go: [row: number]; setAside: [row: number] }>();

const settings = computed(() => ({ column: props.column.name }));
const { result } = useAnalysis<DescribeResult | Unavailable>('describe', settings, toRef(props, 'sample'));
const figures = computed(() =>
  result.value && !isUnavailable(result.value) ? (result.value as DescribeResult) : null,
);
const isNumeric = computed(() => props.column.kind !== 'label');
const wrong = ref<Record<string, string>>({});
watch(
  () => props.column.id,
  () => (wrong.value = {}),
);

const figure = (value: number | null, kind: 'location' | 'spread' | 'reading') =>
  value === null ? '–' : formatFigure(value, kind, props.sample.resolution);

type Texts = 'name' | 'unit';
function setText(field: Texts, typed: string): void {
  const text = typed.trim();
  if (field === 'name' && text === '') {
    wrong.value = { ...wrong.value, name: 'A column needs a name.' };
    return;
  }
  wrong.value = {};
  if (text !== props.column[field]) emit('change', { kind: 'change-column', column: props.column.id, [field]: text });
}

type Numbers = 'resolution' | 'lowerLimit' | 'upperLimit';
const WORDS: Record<Numbers, string> = {
  resolution: 'The resolution',
  lowerLimit: 'The lower limit',
  upperLimit: 'The upper limit',
};

/** Why a typed figure will not do, or null. */
function objection(field: Numbers, value: number | null): string | null {
  if (field === 'resolution') return value !== null && value <= 0 ? 'The resolution is a number above 0.' : null;
  const lower = field === 'lowerLimit' ? value : props.column.lowerLimit;
  const upper = field === 'upperLimit' ? value : props.column.upperLimit;
  return lower !== null && upper !== null && lower >= upper
    ? `The lower limit (${lower}) must be below the upper (${upper}).`
    : null;
}

function setNumber(field: Numbers, typed: string): void {
  const text = typed.trim();
  const value = text === '' ? null : readNumber(text.replace(',', '.'), { decimal: 'point', thousands: 'none' });
  const bad =
    text !== '' && value === null ? `${WORDS[field]} takes a number; “${text}” is none.` : objection(field, value);
  wrong.value = bad ? { [field]: bad } : {};
  if (!bad && value !== props.column[field])
    emit('change', { kind: 'change-column', column: props.column.id, [field]: value });
}

const setKind = (event: Event) =>
  emit('change', {
    kind: 'change-column',
    column: props.column.id,
    columnKind: (event.target as HTMLSelectElement).value as StudyColumn['kind'],
  });

const current = computed(() => props.aside.find(({ row }) => row === props.cursorRow));
</script>

<template>
  <div class="cards">
    <section class="card box" :aria-label="`Column ${column.name}`">
      <StripPicture v-if="isNumeric && sample.values.length" :column="column" :sample="sample" />
      <dl>
        <dt>name</dt>
        <dd>
          <DraftField
            class="field"
            aria-label="Column name"
            maxlength="80"
            :disabled="locked"
            :value="column.name"
            @commit="(text) => setText('name', text)"
          />
        </dd>
        <dt>kind</dt>
        <dd>
          <select class="field" aria-label="Kind" :value="column.kind" :disabled="locked" @change="setKind">
            <option value="measure">a measure</option>
            <option value="label">a label</option>
            <option value="count">a count</option>
          </select>
        </dd>
        <template v-if="isNumeric">
          <dt>unit</dt>
          <dd>
            <DraftField
              class="field"
              aria-label="Unit"
              size="8"
              maxlength="20"
              placeholder="none"
              :disabled="locked"
              :value="column.unit"
              @commit="(text) => setText('unit', text)"
            />
          </dd>
          <dt>resolution</dt>
          <dd>
            <DraftField
              class="field"
              aria-label="Resolution"
              size="8"
              :disabled="locked"
              :placeholder="sample.resolution === null ? 'unknown' : String(sample.resolution)"
              :value="String(column.resolution ?? '')"
              @commit="(text) => setNumber('resolution', text)"
            />
            <span class="soft small">{{ column.resolution === null ? 'read from the digits' : 'as given' }}</span>
          </dd>
          <dt>limits</dt>
          <dd>
            <DraftField
              class="field"
              aria-label="Lower limit"
              size="7"
              placeholder="none"
              :disabled="locked"
              :value="String(column.lowerLimit ?? '')"
              @commit="(text) => setNumber('lowerLimit', text)"
            />
            <span class="soft to">to</span>
            <DraftField
              class="field"
              aria-label="Upper limit"
              size="7"
              placeholder="none"
              :disabled="locked"
              :value="String(column.upperLimit ?? '')"
              @commit="(text) => setNumber('upperLimit', text)"
            />
          </dd>
        </template>
      </dl>
      <p v-for="text in wrong" :key="text" class="said-wrong" role="alert">{{ text }}</p>
    </section>
    <section v-if="figures && isNumeric" class="card box" aria-label="First figures">
      <table class="figures">
        <tbody>
          <tr>
            <td>readings</td>
            <td class="number">{{ figure(figures.n, 'reading').replace(/\.0+$/, '') }}</td>
          </tr>
          <tr>
            <td>mean</td>
            <td class="number">{{ figure(figures.mean, 'location') }}</td>
          </tr>
          <tr>
            <td>sd, n − 1</td>
            <td class="number">{{ figure(figures.sd, 'spread') }}</td>
          </tr>
          <tr>
            <td>least and greatest</td>
            <td class="number">{{ figure(figures.min, 'reading') }} · {{ figure(figures.max, 'reading') }}</td>
          </tr>
        </tbody>
      </table>
    </section>
    <CautionNote v-if="problems.length" lead="To look at">
      <ul>
        <li v-for="problem in problems.slice(0, 50)" :key="problem.row">
          <button class="plain" @click="emit('go', problem.row)">{{ problem.text }}</button>
        </li>
      </ul>
      <template v-if="problems.length > 50">and {{ problems.length - 50 }} more. </template>
      Kept as written, left out until you mend {{ problems.length === 1 ? 'it' : 'them' }}.
    </CautionNote>
    <section v-if="aside.length || !locked" class="card box" aria-label="Set aside">
      <b>Set aside</b>
      <p v-if="!aside.length" class="soft none">No reading is set aside.</p>
      <SetAsideList :column-id="column.id" :readings="aside" @go="(row) => emit('go', row)" />
      <el-button v-if="!locked && !current && cells[cursorRow - 1]" size="small" @click="emit('setAside', cursorRow)"
        >Set row {{ cursorRow }} aside …</el-button
      >
    </section>
  </div>
</template>

<style scoped>
.cards {
  display: grid;
  gap: 12px;
  align-content: start;
}
.box {
  padding: 12px 16px;
}
dl {
  display: grid;
  grid-template-columns: 96px 1fr;
  gap: 5px 12px;
  margin: 0;
}
dt {
  color: var(--soft);
}
dd {
  margin: 0;
  white-space: nowrap;
}
dd input[aria-label='Column name'] {
  width: 100%;
}
.small {
  font-size: 12.5px;
}
.to {
  margin: 0 8px;
}
.none {
  margin: 2px 0 8px;
}
ul {
  max-height: 130px;
  margin: 0;
  padding: 0;
  overflow: auto;
  list-style: none;
}
li .plain {
  color: var(--ink);
  text-align: left;
}
</style>
