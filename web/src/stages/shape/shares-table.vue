<script setup lang="ts">
import { SHARES_FIGURES, stretchWords, type SharesResult } from '@verdict/core/analyses';
import { formatPercentOf, groupThousands } from '@verdict/core/format';
import type { Explained } from '@verdict/core/road';
import { ref } from 'vue';
import FigureMeaning from '../../components/figures/figure-meaning.vue';
import FigureName from '../../components/figures/figure-name.vue';
import { local } from '../../language/language.js';

/** Shares within limits: found beside expected, with the interval for the true share, and what lies below and above. */
defineProps<{ result: SharesResult }>();
const asked = ref<Explained | null>(null);
const ask = (figure: Explained) => (asked.value = asked.value?.key === figure.key ? null : figure);
const percent = (share: number) => formatPercentOf(share, undefined, 3);
</script>

<template>
  <div>
    <div class="scroll">
      <table class="figures">
        <thead>
          <tr>
            <th>within</th>
            <th v-for="figure in SHARES_FIGURES" :key="figure.key" class="number">
              <FigureName :figure="figure" :open="asked?.key === figure.key" @ask="ask(figure)" />
            </th>
          </tr>
        </thead>
        <tbody>
          <template v-for="part in result.parts" :key="part.name">
            <tr v-if="result.grouped">
              <td colspan="4" class="part">{{ part.name }}, {{ groupThousands(part.n) }}</td>
            </tr>
            <tr v-for="(stretch, i) in part.stretches" :key="i">
              <td>{{ local(stretchWords(stretch, result.resolution, result.unit).replace('within ', '')) }}</td>
              <td class="number">
                {{ groupThousands(stretch.inside) }} of {{ groupThousands(part.n) }},
                {{ local(percent(stretch.share)) }}
                <span class="soft interval"
                  >{{ local(percent(stretch.interval[0])) }} – {{ local(percent(stretch.interval[1])) }}</span
                >
              </td>
              <td class="number">{{ local(stretch.expected === null ? '–' : percent(stretch.expected)) }}</td>
              <td class="number">{{ groupThousands(stretch.below) }} · {{ groupThousands(stretch.above) }}</td>
            </tr>
          </template>
        </tbody>
      </table>
    </div>
    <FigureMeaning v-if="asked" :figure="asked" />
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
.interval {
  display: block;
  font-size: 12px;
}
.part {
  font-weight: 600;
}
</style>
