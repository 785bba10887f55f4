<script setup lang="ts">
import { crossedBounds, type ChangeInput, type StudyColumn } from '@verdict/contract';
import { LONGEST_NAME, readNumber } from '@verdict/core/readings';
import { boundsWith, renamedWith } from '@verdict/core/table';
import { computed, ref, watch } from 'vue';
import SentenceChoice from '../../../components/fields/sentence-choice.vue';
import SentenceNumber from '../../../components/fields/sentence-number.vue';
import SentenceText from '../../../components/fields/sentence-text.vue';
import { local } from '../../../language/language.js';

/** The settings of a column: name, kind, unit, resolution, limits, target, claims, frequencies. Each is changed in place. */
const props = defineProps<{
  column: StudyColumn;
  columns: StudyColumn[];
  /** The resolution in use, given or read from the digits. */
  resolution: number | null;
  locked: boolean;
}>();
const emit = defineEmits<{ change: [change: ChangeInput] }>();

const isNumeric = computed(() => props.column.kind !== 'label');
const isCount = computed(() => props.column.kind === 'count');
const wrong = ref<Record<string, string>>({});
watch(
  () => props.column.id,
  () => (wrong.value = {}),
);

const say = (facts: object) => emit('change', { kind: 'change-column', column: props.column.id, ...facts });

type Texts = 'name' | 'unit';
function setText(field: Texts, typed: string): void {
  const text = typed.trim();
  const most = { name: LONGEST_NAME, unit: 20 }[field];
  if (text.length > most) {
    wrong.value = {
      ...wrong.value,
      [field]: `A ${field} may have at most ${most} characters, but this one has ${text.length}. Shorten it.`,
    };
    return;
  }
  wrong.value = {};
  if (text === props.column[field]) return;
  const renames = field === 'name' ? renamedWith(props.columns, props.column.id, text) : [];
  say({ [field]: text, ...(renames.length ? { renames } : {}) });
}

type Numbers = 'resolution' | 'lowerLimit' | 'target' | 'upperLimit' | 'claimedMean' | 'claimedSd';
const WORDS: Record<Numbers, string> = {
  resolution: 'resolution',
  lowerLimit: 'lower limit',
  target: 'target',
  upperLimit: 'upper limit',
  claimedMean: 'claimed mean',
  claimedSd: 'claimed SD',
};

/** Why a typed figure will not do, or null. */
function objection(field: Numbers, value: number | null): string | null {
  if ((field === 'resolution' || field === 'claimedSd') && value !== null && value <= 0) {
    return `The ${WORDS[field]} must be a number above 0.`;
  }
  return crossedBounds({ ...props.column, [field]: value })?.text ?? null;
}

function setNumber(field: Numbers, typed: string): void {
  const text = typed.trim();
  const value = text === '' ? null : readNumber(text.replace(',', '.'), { decimal: 'point', thousands: 'none' });
  const bad =
    text !== '' && value === null ? `The ${WORDS[field]} must be a number; “${text}” is not.` : objection(field, value);
  wrong.value = bad ? { [field]: bad } : {};
  if (bad || value === props.column[field]) return;
  const bounds = boundsWith(props.columns, props.column.id, { ...props.column, [field]: value });
  say({ [field]: value, ...(bounds.length ? { bounds } : {}) });
}
const given = (field: Numbers) => String(props.column[field] ?? '');

const counts = computed(() => props.columns.filter(({ id, kind }) => kind === 'count' && id !== props.column.id));
/** The columns that take this one as their frequencies. */
const countsFor = computed(() => props.columns.filter(({ frequencies }) => frequencies === props.column.id));
</script>

<template>
  <div>
    <dl>
      <dt>name</dt>
      <dd>
        <SentenceText
          aria-label="Column name"
          needed
          :disabled="locked"
          :model-value="column.name"
          @emptied="wrong = { name: `A column needs a name; its name is still ${column.name}.` }"
          @update:model-value="(text) => setText('name', text)"
        />
      </dd>
      <dt>kind</dt>
      <dd>
        <SentenceChoice
          aria-label="Kind"
          :model-value="column.kind"
          :disabled="locked"
          :options="[
            { value: 'measure', text: 'a measurement' },
            { value: 'label', text: 'a label' },
            { value: 'count', text: 'a count' },
          ]"
          @update:model-value="(value) => say({ columnKind: value })"
        />
      </dd>
      <template v-if="isNumeric">
        <dt>unit</dt>
        <dd>
          <SentenceText
            aria-label="Unit"
            placeholder="none"
            :disabled="locked"
            :model-value="column.unit"
            @update:model-value="(text) => setText('unit', text)"
          />
        </dd>
        <dt>resolution</dt>
        <dd>
          <SentenceNumber
            aria-label="Resolution"
            :disabled="locked"
            :placeholder="resolution === null ? 'unknown' : local(String(resolution))"
            :model-value="given('resolution')"
            @update:model-value="(text) => setNumber('resolution', text)"
          />
          <span class="soft small">{{
            column.resolution !== null
              ? 'as given'
              : resolution !== null && !column.derivation
                ? 'read from the digits'
                : ''
          }}</span>
        </dd>
        <dt>limits</dt>
        <dd>
          <SentenceNumber
            aria-label="Lower limit"
            placeholder="none"
            :disabled="locked"
            :model-value="given('lowerLimit')"
            @update:model-value="(text) => setNumber('lowerLimit', text)"
          />
          <span class="soft to">to</span>
          <SentenceNumber
            aria-label="Upper limit"
            placeholder="none"
            :disabled="locked"
            :model-value="given('upperLimit')"
            @update:model-value="(text) => setNumber('upperLimit', text)"
          />
          <span class="soft apart">target</span>
          <SentenceNumber
            aria-label="Target"
            placeholder="none"
            :disabled="locked"
            :model-value="given('target')"
            @update:model-value="(text) => setNumber('target', text)"
          />
        </dd>
        <dt>claimed</dt>
        <dd>
          <span class="soft">mean </span>
          <SentenceNumber
            aria-label="Claimed mean"
            placeholder="none"
            :disabled="locked"
            :model-value="given('claimedMean')"
            @update:model-value="(text) => setNumber('claimedMean', text)"
          />
          <span class="soft to">and SD</span>
          <SentenceNumber
            aria-label="Claimed SD"
            placeholder="none"
            :disabled="locked"
            :model-value="given('claimedSd')"
            @update:model-value="(text) => setNumber('claimedSd', text)"
          />
        </dd>
        <template v-if="counts.length || column.frequencies">
          <dt>each row is</dt>
          <dd>
            <SentenceChoice
              aria-label="Frequencies"
              :model-value="column.frequencies ?? ''"
              :disabled="locked"
              :options="[
                { value: '', text: 'one reading' },
                ...counts.map((count) => ({ value: count.id, text: `as many readings as ${count.name} states` })),
              ]"
              @update:model-value="(value) => say({ frequencies: value || null })"
            />
          </dd>
        </template>
        <template v-if="isCount">
          <dt>Frequencies:</dt>
          <dd class="soft">
            {{
              countsFor.length
                ? `number of times each value of ${countsFor.map(({ name }) => name).join(', ')} occurred`
                : 'a frequency in every row'
            }}
          </dd>
        </template>
      </template>
    </dl>
    <p v-for="text in wrong" :key="text" class="said-wrong" role="alert">{{ local(text) }}</p>
  </div>
</template>

<style scoped>
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
}
dd:first-of-type .field {
  width: 100%;
}
.small {
  font-size: 12.5px;
}
.to {
  margin: 0 6px;
}
.apart {
  margin: 0 6px 0 16px;
}
</style>
