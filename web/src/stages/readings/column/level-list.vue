<script setup lang="ts">
import type { ChangeInput, StudyColumn } from '@verdict/contract';
import { countLevels, likelySame, withMerged, withParted } from '@verdict/core/readings';
import { computed, ref } from 'vue';
import CautionNote from '../../../components/caution-note.vue';

/** The levels of a label with their counts: in an order of the analyst's, spellings merged. The cells stay as they are written. */
const props = defineProps<{ column: StudyColumn; cells: readonly string[]; locked: boolean }>();
const emit = defineEmits<{ change: [change: ChangeInput] }>();

const levels = computed(() => countLevels(props.cells, props.column.levels));
const names = computed(() => levels.value.map(({ name }) => name));
const same = computed(() => likelySame(levels.value));
const MOST = 100;
const chosen = ref<string[]>([]);

const set = (arranged: StudyColumn['levels']) =>
  emit('change', { kind: 'change-column', column: props.column.id, levels: arranged });
function move(i: number, by: number): void {
  const order = [...names.value];
  order.splice(i + by, 0, ...order.splice(i, 1));
  set({ order, merged: props.column.levels?.merged ?? [] });
}
/** The spelling that a merged level goes by: the most frequent of those chosen, without blanks at its ends. */
function leading(group: readonly string[]): string {
  const counts = new Map(levels.value.map(({ name, count }) => [name, count]));
  const [first] = [...group].sort((a, b) => (counts.get(b) ?? 0) - (counts.get(a) ?? 0));
  return first!.trim();
}
function merge(group: readonly string[]): void {
  set(withMerged(props.column.levels, group, leading(group)));
  chosen.value = [];
}
/** Takes one spelling out of a merged level; the others stay merged. */
const part = (spelling: string) => set(withParted(props.column.levels!, spelling));
/** Blanks at the ends are what tells two spellings apart: they are shown. */
const shown = (name: string) => (name === name.trim() ? name : `“${name}”`);
</script>

<template>
  <section class="card box" aria-label="Labels">
    <div>
      <b>Labels</b> <span class="soft">{{ levels.length }}, with their counts</span>
    </div>
    <el-checkbox-group v-model="chosen">
      <table class="figures">
        <tbody>
          <tr v-for="(level, i) in levels.slice(0, MOST)" :key="level.name">
            <td>
              <el-checkbox v-if="!locked" :value="level.name" :aria-label="`Choose ${level.name}`">{{
                shown(level.name)
              }}</el-checkbox>
              <template v-else>{{ shown(level.name) }}</template>
              <div v-if="level.spellings.some((s) => s !== level.name)" class="soft small">
                with
                <span v-for="spelling in level.spellings.filter((s) => s !== level.name)" :key="spelling" class="merged"
                  >{{ shown(spelling) }}
                  <el-button v-if="!locked" link :aria-label="`Separate ${spelling} again`" @click="part(spelling)">
                    Separate again
                  </el-button></span
                >
              </div>
            </td>
            <td class="number">{{ level.count }}</td>
            <td class="number">
              <template v-if="!locked">
                <el-button link :disabled="i === 0" :aria-label="`Move ${level.name} up`" @click="move(i, -1)">
                  ↑
                </el-button>
                <el-button
                  link
                  :disabled="i === levels.length - 1"
                  :aria-label="`Move ${level.name} down`"
                  @click="move(i, 1)"
                >
                  ↓
                </el-button>
              </template>
            </td>
          </tr>
        </tbody>
      </table>
    </el-checkbox-group>
    <p v-if="levels.length > MOST" class="soft">and {{ levels.length - MOST }} more.</p>
    <el-button v-if="chosen.length > 1 && !locked" size="small" @click="merge(chosen)"
      >Merge into {{ leading(chosen) }}</el-button
    >
    <CautionNote v-for="group in same" :key="group[0]" lead="Check">
      {{ group.map(shown).join(' and ') }} differ only in spaces or case.
      <el-button v-if="!locked" size="small" @click="merge(group)">Treat as {{ leading(group) }}</el-button>
    </CautionNote>
  </section>
</template>

<style scoped>
.box {
  display: grid;
  gap: 8px;
  padding: 12px 16px;
}
.small {
  font-size: 12.5px;
}
.merged {
  margin-right: 8px;
  white-space: nowrap;
}
</style>
