<script setup lang="ts">
import { articleOf, FAMILIES, familyByName, rangeWords } from '@verdict/core/distributions';
import { computed } from 'vue';
import { local } from '../../language/language.js';
import FigureField from './figure-field.vue';
import { carriedTo, givenOtherwise } from './carried-over.js';
import { givenByMoments, usualTexts, type Asked, type Draft, type Faults, type GivenBy } from './question.js';
import SentenceChoice from '../../components/fields/sentence-choice.vue';

/** The question as a sentence with fields. */
const props = defineProps<{ draft: Draft; faults: Faults; counted: boolean }>();
const emit = defineEmits<{ change: [patch: Partial<Draft>] }>();

const family = computed(() => familyByName(props.draft.family));
const byMoments = computed(() => givenByMoments(family.value));
const families = FAMILIES.map(({ family: value, title, discrete }) => ({
  value,
  text: title,
  group: discrete ? 'counts' : 'measures',
})).sort((a, b) => b.group.localeCompare(a.group));

/** Counts have a chance of lying on the limit: the trade's words say whether it belongs. */
const OF_COUNTS = [
  { value: 'below included', text: 'of at most' },
  { value: 'below excluded', text: 'of fewer than' },
  { value: 'above included', text: 'of at least' },
  { value: 'above excluded', text: 'of more than' },
];
const OF_MEASURES = [
  { value: 'below', text: 'of a value below' },
  { value: 'above', text: 'of a value above' },
];
const OF_BOTH = [
  { value: 'between', text: 'of a value between' },
  { value: 'outside', text: 'of a value outside' },
  { value: 'withinSd', text: 'of a value within a number of SDs' },
  { value: 'recordedAs', text: 'of a value recorded as' },
];
const ofOneLimit = computed(() => ['below', 'above'].includes(props.draft.asked));
const saysEnds = computed(() => family.value.discrete && ofOneLimit.value);
const limitWord = computed(() => (ofOneLimit.value ? 'the limit' : 'the limits'));
const chances = computed(() => [...(family.value.discrete ? OF_COUNTS : OF_MEASURES), ...OF_BOTH]);
/** Where the value lies, with whether the limit belongs where one word says both. */
const where = computed(() => {
  const { asked, ends } = props.draft;
  return saysEnds.value ? `${asked} ${ends || 'included'}` : asked;
});
function setWhere(value: string): void {
  const [asked, ends] = value.split(' ');
  emit('change', { ...carriedTo(props.draft, asked as Asked), ...(ends ? { ends: ends as Draft['ends'] } : {}) });
}
const VALUES: readonly { value: Asked; text: string }[] = [
  { value: 'lowerShare', text: 'below it' },
  { value: 'upperShare', text: 'above it' },
  { value: 'centralShare', text: 'in the middle' },
];
/** The two parameters that mean and standard deviation can stand for, and those that are named one by one. */
const pair = computed(() => (byMoments.value ? family.value.parameters.filter(({ optional }) => !optional) : []));
const named = computed(() => family.value.parameters.filter((spec) => !pair.value.includes(spec)));
const asksChance = computed(() => !VALUES.some(({ value }) => value === props.draft.asked));
const article = computed(() => articleOf(family.value.title));

function setFamily(name: string): void {
  const next = familyByName(name);
  const keep = Object.entries(usualTexts(next)).map(([key, usual]) => [key, props.draft.parameters[key] ?? usual]);
  const by = givenByMoments(next) ? props.draft.by : 'parameters';
  emit('change', { family: name, by, parameters: Object.fromEntries(keep) });
}
const setParameter = (name: string, value: string) =>
  emit('change', { parameters: { ...props.draft.parameters, [name]: value } });
const setAsked = (value: string) => emit('change', carriedTo(props.draft, value as Asked));
const setBy = (value: string) => emit('change', givenOtherwise(props.draft, value as GivenBy));
const endings = (i: number, all: number) => (i === 0 ? '' : i === all - 1 ? ' and ' : ', ');
/** The words that a fault is said in, those about the family first, as the sentence has them. */
const said = computed(() => {
  const isFamily = (field: string) => (field.includes('.') || field === 'mean' || field === 'spread' ? 0 : 1);
  const sorted = Object.entries(props.faults).sort(([a], [b]) => isFamily(a) - isFamily(b));
  return [...new Set(sorted.map(([, text]) => text))];
});
const wrong = (field: string) => field in props.faults;
</script>

<template>
  <div>
    <p class="sentence">
      For {{ article }}
      <SentenceChoice
        aria-label="Family"
        :model-value="draft.family"
        :title="family.about"
        :options="families"
        @update:model-value="setFamily"
      />
      distribution with
      <template v-if="byMoments">
        <SentenceChoice
          aria-label="Specified by"
          :model-value="draft.by"
          :options="[
            { value: 'parameters', text: pair.map(({ title }) => title).join(' and ') },
            ...(draft.family !== 'normal' ? [{ value: 'sd', text: 'mean and standard deviation' }] : []),
            { value: 'variance', text: 'mean and variance' },
          ]"
          @update:model-value="setBy"
        />
        <template v-if="draft.by === 'parameters'">
          <template v-for="(spec, i) in pair" :key="spec.name">
            <template v-if="i > 0"> and </template>
            <FigureField
              :label="spec.title"
              :value="draft.parameters[spec.name]"
              :wrong="wrong(`p.${spec.name}`)"
              :hint="`${spec.meaning}; ${rangeWords(spec)}`"
              @typed="(typed) => setParameter(spec.name, typed)"
            />
          </template>
        </template>
        <template v-else>
          <FigureField
            label="mean"
            :value="draft.mean"
            :wrong="wrong('mean')"
            @typed="(typed) => emit('change', { mean: typed })"
          />
          and
          <FigureField
            :label="draft.by === 'sd' ? 'standard deviation' : draft.by"
            :value="draft.spread"
            :wrong="wrong('spread')"
            @typed="(typed) => emit('change', { spread: typed })"
          />
        </template>
      </template>
      <template v-for="(spec, i) in named" :key="spec.name"
        >{{ byMoments ? ', ' : endings(i, named.length) }}
        <span class="pair"
          >{{ spec.title }}
          <FigureField
            :label="spec.title"
            :value="draft.parameters[spec.name]"
            :wrong="wrong(`p.${spec.name}`)"
            :hint="`${spec.meaning}; ${rangeWords(spec)}`"
            @typed="(typed) => setParameter(spec.name, typed)" /></span></template
      >,
      <SentenceChoice
        aria-label="Question"
        :model-value="asksChance ? 'chance' : 'value'"
        :options="[
          { value: 'chance', text: 'what is the probability' },
          { value: 'value', text: 'which value has a proportion of' },
        ]"
        @update:model-value="(value) => setAsked(value === 'chance' ? 'between' : 'upperShare')"
      />
      <template v-if="asksChance">
        <SentenceChoice aria-label="Where" :model-value="where" :options="chances" @update:model-value="setWhere" />
        <template v-if="draft.asked === 'withinSd'">
          :
          <FigureField
            label="Number of SDs"
            :value="draft.times"
            :wrong="wrong('times')"
            @typed="(typed) => emit('change', { times: typed })"
          />
          SDs of the mean?
        </template>
        <template v-else-if="draft.asked === 'recordedAs'">
          <FigureField
            label="Recorded value"
            :value="draft.value"
            :wrong="wrong('value')"
            @typed="(typed) => emit('change', { value: typed })"
          />
          with a resolution of
          <FigureField
            label="Resolution"
            :value="draft.step"
            :wrong="wrong('step')"
            @typed="(typed) => emit('change', { step: typed })"
          />?
        </template>
        <template v-else>
          <FigureField
            v-if="draft.asked !== 'below'"
            :label="draft.asked === 'above' ? 'Limit' : 'Lower limit'"
            :value="draft.a"
            :wrong="wrong('a')"
            @typed="(typed) => emit('change', { a: typed })"
          />
          <template v-if="draft.asked === 'between' || draft.asked === 'outside'"> and </template>
          <FigureField
            v-if="draft.asked !== 'above'"
            :label="draft.asked === 'below' ? 'Limit' : 'Upper limit'"
            :value="draft.b"
            :wrong="wrong('b')"
            @typed="(typed) => emit('change', { b: typed })"
          /><template v-if="counted && !saysEnds"
            >,
            <SentenceChoice
              aria-label="Limits included"
              :model-value="draft.ends || (draft.asked === 'outside' ? 'excluded' : 'included')"
              :options="[
                { value: 'included', text: `${limitWord} counted` },
                { value: 'excluded', text: `${limitWord} not counted` },
              ]"
              @update:model-value="(value) => emit('change', { ends: value as Draft['ends'] })" /></template
          >?
        </template>
      </template>
      <template v-else>
        <FigureField
          label="Proportion in percent"
          :value="draft.share"
          :wrong="wrong('share')"
          @typed="(typed) => emit('change', { share: typed })"
        />
        %
        <SentenceChoice
          aria-label="Side"
          :model-value="draft.asked"
          :options="VALUES"
          @update:model-value="setAsked"
        />?
      </template>
    </p>
    <p v-for="one in said" :key="one" class="said-wrong" role="alert">{{ local(one) }}</p>
  </div>
</template>

<style scoped>
.sentence {
  margin: 0;
  font: 16px/1.9 var(--serif);
}
.pair {
  white-space: nowrap;
}
.said-wrong {
  margin: 2px 0 0;
}
.field {
  margin-left: 4px;
}
</style>
