<script setup lang="ts">
import { comparedRows, comparedTable, type CompareFamiliesResult } from '@verdict/core/analyses';
import { familyByName } from '@verdict/core/distributions';
import { computed, defineAsyncComponent, ref } from 'vue';
import SmallPlot from '../../../components/small-plot.vue';
import { local } from '../../../language/language.js';

/** The families by rank, each with a small plot, its distance from the best and its p; one is chosen for the plot. */
const props = defineProps<{ result: CompareFamiliesResult; family: string; column: string }>();
const emit = defineEmits<{ choose: [family: string] }>();

const TableDialog = defineAsyncComponent(() => import('../../../workbench/picture/table-dialog.vue'));
const tableOpen = ref(false);
const rows = computed(() => comparedRows(props.result));
const titleOf = (family: string) => familyByName(family).title;
</script>

<template>
  <div class="families">
    <table class="figures">
      <thead>
        <tr>
          <th colspan="2">distribution</th>
          <th class="number" title="AICc minus that of the best">ΔAICc</th>
          <th class="number" title="Akaike weight among the ranked distributions">weight</th>
          <th class="number">p of A²</th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="(row, i) in rows"
          :key="row.family"
          :class="{ chosen: row.family === family, last: row.weight !== '' && rows[i + 1]?.weight === '' }"
        >
          <td class="small">
            <SmallPlot :expected="row.small.expected" :observed="row.small.observed" />
          </td>
          <td>
            <el-button link :aria-pressed="row.family === family" @click="emit('choose', row.family)">{{
              row.title
            }}</el-button>
            <span class="soft parameters">{{ row.plausible ? 'plausible; ' : '' }}{{ local(row.parameters) }}</span>
          </td>
          <td class="number" :title="row.support">{{ local(row.difference || '–') }}</td>
          <td class="number">{{ local(row.weight || '–') }}</td>
          <td class="number">{{ local(row.p) }}</td>
        </tr>
      </tbody>
    </table>
    <p class="soft">
      Plausible: the best distributions whose weights sum to 95 %, without those rejected by A². Distributions below the
      green line cannot be ranked by AICc, because their limits are estimated from minimum and maximum. p of A² is
      simulated with re-estimated parameters.
      <el-button link @click="tableOpen = true">All figures</el-button>
    </p>
    <details v-if="result.left.length">
      <summary>{{ result.left.length }} left out</summary>
      <dl>
        <template v-for="{ family: name, reason } in result.left" :key="name">
          <dt>{{ titleOf(name) }}</dt>
          <dd class="soft">{{ local(reason) }}</dd>
        </template>
      </dl>
    </details>
    <TableDialog
      v-if="tableOpen"
      :title="`Distributions that ${column} may follow`"
      :rows="comparedTable(result)"
      @close="tableOpen = false"
    />
  </div>
</template>

<style scoped>
.families {
  font-size: 13px;
}
.small {
  width: 38px;
  padding: 2px 4px 2px 0;
}
.chosen td {
  background: var(--tint);
}
.last td {
  border-bottom: 2px solid var(--green);
}
td .el-button.is-link {
  padding: 0;
  border: 0;
  color: var(--ink);
}
p {
  margin: 6px 0;
}
.parameters {
  display: block;
  font-size: 12px;
}
th {
  font-weight: 400;
}
dt {
  margin-top: 4px;
}
dd {
  margin: 0;
}
</style>
