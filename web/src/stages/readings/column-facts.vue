<script setup lang="ts">
import { crossedBounds, type ChangeInput, type StudyColumn } from '@verdict/contract';
import { LONGEST_NAME, readNumber } from '@verdict/core/readings';
import { computed, ref, watch } from 'vue';
import DraftField from '../../components/draft-field.vue';

/** What is said about a column: name, kind, unit, resolution, limits, target, claims, frequencies. Each is changed in place. */
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
  if (field === 'name' && text === '') {
    wrong.value = { ...wrong.value, name: 'A column needs a name.' };
    return;
  }
  const most = { name: LONGEST_NAME, unit: 20 }[field];
  if (text.length > most) {
    wrong.value = {
      ...wrong.value,
      [field]: `A ${field} has at most ${most} characters; this one has ${text.length}. Shorten it.`,
    };
    return;
  }
  wrong.value = {};
  if (text !== props.column[field]) say({ [field]: text });
}

type Numbers = 'resolution' | 'lowerLimit' | 'target' | 'upperLimit' | 'claimedMean' | 'claimedSd';
const WORDS: Record<Numbers, string> = {
  resolution: 'resolution',
  lowerLimit: 'lower limit',
  target: 'target',
  upperLimit: 'upper limit',
  claimedMean: 'claimed mean',
  claimedSd: 'claimed sd',
};

/** Why a typed figure will not do, or null. */
function objection(field: Numbers, value: number | null): string | null {
  if ((field === 'resolution' || field === 'claimedSd') && value !== null && value <= 0) {
    return `The ${WORDS[field]} is a number above 0.`;
  }
  return crossedBounds({ ...props.column, [field]: value })?.text ?? null;
}

function setNumber(field: Numbers, typed: string): void {
  const text = typed.trim();
  const value = text === '' ? null : readNumber(text.replace(',', '.'), { decimal: 'point', thousands: 'none' });
  const bad =
    text !== '' && value === null ? `The ${WORDS[field]} takes a number; “${text}” is none.` : objection(field, value);
  wrong.value = bad ? { [field]: bad } : {};
  if (!bad && value !== props.column[field]) say({ [field]: value });
}
const given = (field: Numbers) => String(props.column[field] ?? '');
const valueOf = (event: Event) => (event.target as HTMLSelectElement).value;

const counts = computed(() => props.columns.filter(({ id, kind }) => kind === 'count' && id !== props.column.id));
/** The columns that take this one as their frequencies. */
const countsFor = computed(() => props.columns.filter(({ frequencies }) => frequencies === props.column.id));
</script>

<template>
  <div>
    <dl>
      <dt>name</dt>
      <dd>
        <DraftField
          class="field"
          aria-label="Column name"
          :disabled="locked"
          :value="column.name"
          @commit="(text) => setText('name', text)"
        />
      </dd>
      <dt>kind</dt>
      <dd>
        <select
          class="field"
          aria-label="Kind"
          :value="column.kind"
          :disabled="locked"
          @change="say({ columnKind: valueOf($event) })"
        >
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
            :placeholder="resolution === null ? 'unknown' : String(resolution)"
            :value="given('resolution')"
            @commit="(text) => setNumber('resolution', text)"
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
          <DraftField
            class="field"
            aria-label="Lower limit"
            size="6"
            placeholder="none"
            :disabled="locked"
            :value="given('lowerLimit')"
            @commit="(text) => setNumber('lowerLimit', text)"
          />
          <span class="soft to">to</span>
          <DraftField
            class="field"
            aria-label="Upper limit"
            size="6"
            placeholder="none"
            :disabled="locked"
            :value="given('upperLimit')"
            @commit="(text) => setNumber('upperLimit', text)"
          />
          <span class="soft apart">target</span>
          <DraftField
            class="field"
            aria-label="Target"
            size="6"
            placeholder="none"
            :disabled="locked"
            :value="given('target')"
            @commit="(text) => setNumber('target', text)"
          />
        </dd>
        <dt>claimed</dt>
        <dd>
          <span class="soft">mean </span>
          <DraftField
            class="field"
            aria-label="Claimed mean"
            size="6"
            placeholder="none"
            :disabled="locked"
            :value="given('claimedMean')"
            @commit="(text) => setNumber('claimedMean', text)"
          />
          <span class="soft to">and sd</span>
          <DraftField
            class="field"
            aria-label="Claimed sd"
            size="6"
            placeholder="none"
            :disabled="locked"
            :value="given('claimedSd')"
            @commit="(text) => setNumber('claimedSd', text)"
          />
        </dd>
        <template v-if="counts.length || column.frequencies">
          <dt>each row is</dt>
          <dd>
            <select
              class="field"
              aria-label="Frequencies"
              :value="column.frequencies ?? ''"
              :disabled="locked"
              @change="say({ frequencies: valueOf($event) || null })"
            >
              <option value="">one reading</option>
              <option v-for="count in counts" :key="count.id" :value="count.id">
                as many readings as {{ count.name }} says
              </option>
            </select>
          </dd>
        </template>
        <template v-if="isCount">
          <dt>it counts</dt>
          <dd class="soft">
            {{
              countsFor.length
                ? `how often each value of ${countsFor.map(({ name }) => name).join(', ')} occurred`
                : 'a tally in every row'
            }}
          </dd>
        </template>
      </template>
    </dl>
    <p v-for="text in wrong" :key="text" class="said-wrong" role="alert">{{ text }}</p>
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
dd input[aria-label='Column name'] {
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
