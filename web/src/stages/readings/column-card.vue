<script setup lang="ts">
import type { ChangeInput, StudyColumn } from '@verdict/contract';
import {
  derivationWords,
  formatFigure,
  isUnavailable,
  readNumber,
  type DescribeResult,
  type Sample,
  type Unavailable,
} from '@verdict/core';
import { computed, ref, toRef, watch } from 'vue';
import CautionNote from '../../components/caution-note.vue';
import DraftField from '../../components/draft-field.vue';
import SetAsideList from '../../components/set-aside-list.vue';
import { useAnalysis } from '../../composables/use-analysis.js';
import LevelList from './level-list.vue';
import StripPicture from './strip-picture.vue';

/** The card of one column: what it is, its first figures or levels, what is wrong with it, what is set aside. */
const props = defineProps<{
  column: StudyColumn;
  columns: StudyColumn[];
  sample: Sample;
  cells: readonly string[];
  aside: { row: number; reason: string; who: string }[];
  problems: { row: number; text: string }[];
  problemCount: number;
  /** Why a derived column has no values at all. */
  fault: string | null;
  locked: boolean;
  /** Chosen readings that can be set aside, in words; empty when there are none. */
  chosen: string;
}>();
const emit = defineEmits<{
  change: [change: ChangeInput];
  go: [row: number];
  setAside: [];
  derive: [];
  freeze: [];
}>();

const settings = computed(() => ({ column: props.column.name }));
const { result } = useAnalysis<DescribeResult | Unavailable>('describe', settings, toRef(props, 'sample'));
const figures = computed(() =>
  result.value && !isUnavailable(result.value) ? (result.value as DescribeResult) : null,
);
const isNumeric = computed(() => props.column.kind !== 'label');
const isCount = computed(() => props.column.kind === 'count');
const wrong = ref<Record<string, string>>({});
watch(
  () => props.column.id,
  () => (wrong.value = {}),
);

const figure = (value: number | null, kind: 'location' | 'spread' | 'reading') =>
  value === null ? '–' : formatFigure(value, kind, props.sample.resolution);

const say = (facts: object) => emit('change', { kind: 'change-column', column: props.column.id, ...facts });

type Texts = 'name' | 'unit';
function setText(field: Texts, typed: string): void {
  const text = typed.trim();
  if (field === 'name' && text === '') {
    wrong.value = { ...wrong.value, name: 'A column needs a name.' };
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
const BOUNDS = ['lowerLimit', 'target', 'upperLimit'] as const;

/** Why a typed figure will not do, or null. */
function objection(field: Numbers, value: number | null): string | null {
  if ((field === 'resolution' || field === 'claimedSd') && value !== null && value <= 0) {
    return `The ${WORDS[field]} is a number above 0.`;
  }
  const bounds = BOUNDS.map((key) => ({ key, value: key === field ? value : props.column[key] }));
  const given = bounds.filter((bound) => bound.value !== null);
  const crossed = given.findIndex((bound, i) => i > 0 && given[i - 1]!.value! >= bound.value!);
  if (crossed < 0) return null;
  const [low, high] = [given[crossed - 1]!, given[crossed]!];
  return `The ${WORDS[low.key]} (${low.value}) must be below the ${WORDS[high.key]} (${high.value}).`;
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
const limits = computed(() => props.problems.filter(({ text }) => / a limit\.$/.test(text)).length);
</script>

<template>
  <div class="cards">
    <section class="card box" :aria-label="`Column ${column.name}`">
      <StripPicture v-if="isNumeric && sample.values.length" :column="column" :sample="sample" />
      <p v-if="column.derivation" class="soft follows">
        {{ derivationWords(column.derivation, columns) }}
        <template v-if="!locked">
          <button class="plain" @click="emit('derive')">Change</button>
          <button class="plain" @click="emit('freeze')">Freeze to plain values</button>
        </template>
      </p>
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
              :value="given('resolution')"
              @commit="(text) => setNumber('resolution', text)"
            />
            <span class="soft small">{{
              column.resolution !== null
                ? 'as given'
                : sample.resolution !== null && !column.derivation
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
    </section>
    <CautionNote v-if="fault" lead="No values" tone="wrong">{{ fault }}</CautionNote>
    <LevelList
      v-if="column.kind === 'label'"
      :column="column"
      :cells="cells"
      :locked="locked"
      @change="(change) => emit('change', change)"
    />
    <section v-if="figures && isNumeric" class="card box" aria-label="First figures">
      <table class="figures">
        <tbody>
          <tr>
            <td>readings</td>
            <td class="number">{{ formatFigure(figures.n, 'count') }}</td>
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
      <template v-if="problemCount > 50">and {{ problemCount - 50 }} more. </template>
      <template v-if="!column.derivation">
        Kept as written, left out
        {{
          limits === problems.length
            ? 'of every calculation for now.'
            : `until you mend ${problemCount === 1 ? 'it' : 'them'}.`
        }}
      </template>
    </CautionNote>
    <section v-if="aside.length || !locked" class="card box" aria-label="Set aside">
      <b>Set aside</b>
      <p v-if="!aside.length" class="soft none">No reading is set aside.</p>
      <SetAsideList :column-id="column.id" :readings="aside" @go="(row) => emit('go', row)" />
      <el-button v-if="!locked && chosen" size="small" @click="emit('setAside')">Set {{ chosen }} aside …</el-button>
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
}
.follows {
  margin: 0 0 8px;
  font-size: 13px;
  overflow-wrap: anywhere;
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
  padding-left: 0;
  color: var(--ink);
  text-align: left;
}
</style>
