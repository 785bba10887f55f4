<script setup lang="ts">
import { causeWords, extremeRows, outliersAnalysis } from '@verdict/core/analyses';
import { computed, ref } from 'vue';
import { useStudy } from '../../../stores/study.js';
import MethodSentence from '../../../workbench/sentence/method-sentence.vue';
import SetAsideList from '../../../workbench/set-aside/set-aside-list.vue';
import StageFrame from '../../../workbench/frame/stage-frame.vue';
import { useSetAside } from '../../../workbench/set-aside/use-set-aside.js';
import ExtremesTable from './extremes-table.vue';
import FarPicture from './far-picture.vue';
import RulesTable from './rules-table.vue';
import { PANELS, useFar } from './use-far.js';
import WithoutTable from './without-table.vue';

/** Suspected outliers: their list beside the picture, every rule, and the figures without them. */
const store = useStudy();
const far = useFar();
const { column, name, sample, cautions, run, stage, panel, named } = far;
const { result } = run;
const finding = computed(() => (result.value ? outliersAnalysis.finding(result.value) : []));
const canLeave = (row: number) => !store.ruled && !leftHere.value.some((one) => one.row === row);
const cause = computed(() => result.value && causeWords(result.value));
const rows = computed(() => (result.value ? extremeRows(result.value, named.value) : []));
const picture = ref<InstanceType<typeof FarPicture>>();
const pointed = ref<number | null>(null);
const asideHere = computed(() => (store.study?.setAside ?? []).filter((one) => one.column === column.value?.id));

/** Of the subject, those that still stand in it. */
const leftHere = computed(() => {
  const out = new Set(asideHere.value.map(({ row }) => row));
  return (store.study?.leftIn ?? []).filter((one) => one.column === column.value?.id && !out.has(one.row));
});

const aside = useSetAside({
  column,
  sample,
  pointed: () => (pointed.value === null ? [] : [pointed.value]),
  locked: () => false,
  usual: {
    aside: ['mistyped', 'instrument fault', 'other material'],
    left: ['no cause found', 'checked against the record'],
  },
});
/** Named, and neither set aside nor kept with a reason: it has yet to be said what becomes of them. */
const open = computed(() => named.value.filter((row) => !leftHere.value.some((one) => one.row === row)));
</script>

<template>
  <StageFrame :runs="stage" :empty="!column" :finding="finding" :after="cause" :cautions="cautions" :aside="aside">
    <template #picture>
      <FarPicture
        ref="picture"
        :far="far"
        :can-set-aside="!store.ruled"
        @pointed="(row) => (pointed = row)"
        @aside="(row) => aside.ask([row])"
      />
    </template>
    <template #figures>
      <template v-if="result">
        <el-segmented v-model="panel" size="small" aria-label="Tables" :options="[...PANELS]" />
        <ExtremesTable
          v-if="panel === 'far'"
          :rows="rows"
          :pointed="pointed"
          :can-set-aside="!store.ruled"
          @point="(row) => picture?.point(row)"
          @aside="(row) => aside.ask([row])"
          @table="far.showInTable"
        >
          <template #chosen="{ row }">
            <el-button v-if="canLeave(row)" link @click="aside.askToLeave([row])">Keep row {{ row }} …</el-button>
          </template>
        </ExtremesTable>
        <RulesTable v-else-if="panel === 'rules'" :result="result" @choose="(rule) => run.address.set('rule', rule)" />
        <WithoutTable v-else :result="result" />
      </template>
      <details v-if="leftHere.length && column" class="aside">
        <summary>{{ leftHere.length }} kept with a reason</summary>
        <SetAsideList left :column-id="column.id" :readings="leftHere" @go="(row) => far.showInTable([row])" />
      </details>
      <details v-if="asideHere.length && column" class="aside">
        <summary>{{ asideHere.length }} set aside</summary>
        <SetAsideList :column-id="column.id" :readings="asideHere" @go="(row) => far.showInTable([row])" />
      </details>
    </template>
    <template #actions>
      <template v-if="open.length && !store.ruled">
        <el-button @click="aside.ask(open)">Set {{ open.length === 1 ? 'it' : open.length }} aside …</el-button>
        <el-button @click="aside.askToLeave(open)">Keep {{ open.length === 1 ? 'it' : open.length }} …</el-button>
      </template>
      <el-button
        v-if="asideHere.length && far.ruleHasLevel.value && !store.ruled"
        title="Restores them and tests for all of them together with the generalised ESD test"
        @click="far.askTogether"
        >Restore and test together</el-button
      >
    </template>
    <template #sentences>
      <MethodSentence :run="run" :subject="name" />
    </template>
  </StageFrame>
</template>

<style scoped>
.aside {
  font-size: 13px;
}
</style>
