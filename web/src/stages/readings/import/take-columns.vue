<script setup lang="ts">
import { groupThousands } from '@verdict/core/format';
import { MOST_COLUMNS, type ColumnKind, type ParsedColumn } from '@verdict/core/readings';
import { computed, ref } from 'vue';
import SentenceText from '../../../components/fields/sentence-text.vue';

/** Which columns of what comes in are taken: searched by name, chosen one by one, the first ones, or by kind. */
const props = defineProps<{ columns: readonly ParsedColumn[] }>();
/** The places of the chosen columns. */
const chosen = defineModel<ReadonlySet<number>>({ required: true });

/** More boxes than this are not drawn: the search narrows them. */
const MOST_SHOWN = 400;
const sought = ref('');
const found = computed(() => {
  const words = sought.value.trim().toLowerCase();
  return props.columns.flatMap(({ name, kind, unit }, j) =>
    name.toLowerCase().includes(words)
      ? [{ j, name, under: [kind === 'measure' ? 'measurement' : kind, unit].filter(Boolean).join(' · ') }]
      : [],
  );
});
const shown = computed(() => found.value.slice(0, MOST_SHOWN));
const KINDS: readonly { kind: ColumnKind; many: string }[] = [
  { kind: 'measure', many: 'measurements' },
  { kind: 'count', many: 'counts' },
  { kind: 'label', many: 'labels' },
];
const kinds = computed(() => KINDS.filter(({ kind }) => props.columns.some((column) => column.kind === kind)));

const take = (places: readonly number[]) => (chosen.value = new Set(places.slice(0, MOST_COLUMNS)));
const ofKind = (kind: ColumnKind) => take(props.columns.flatMap((column, j) => (column.kind === kind ? [j] : [])));
function set(j: number, on: boolean): void {
  const next = new Set(chosen.value);
  if (on) next.add(j);
  else next.delete(j);
  chosen.value = next;
}
const tooMany = computed(() => chosen.value.size > MOST_COLUMNS);
</script>

<template>
  <section class="take-columns" aria-label="Columns to import">
    <p>
      {{ groupThousands(chosen.size) }} of {{ groupThousands(columns.length) }} columns are selected<template
        v-if="columns.length > MOST_COLUMNS"
        >, at most {{ MOST_COLUMNS }} at once</template
      >.
      <el-button link @click="take([...columns.keys()])">{{
        columns.length > MOST_COLUMNS ? `The first ${MOST_COLUMNS}` : 'All'
      }}</el-button>
      <el-button v-for="{ kind, many } in kinds" :key="kind" link @click="ofKind(kind)">The {{ many }}</el-button>
      <el-button v-if="sought.trim()" link @click="take(found.map(({ j }) => j))">Matching columns</el-button>
      <el-button link @click="take([])">None</el-button>
    </p>
    <p v-if="tooMany" class="said-wrong" role="alert">
      A study can import at most {{ MOST_COLUMNS }} columns at once; {{ groupThousands(chosen.size) }} are chosen.
    </p>
    <SentenceText v-model="sought" live placeholder="search by name" aria-label="Search the columns" />
    <div class="boxes">
      <el-checkbox
        v-for="{ j, name, under } in shown"
        :key="j"
        :model-value="chosen.has(j)"
        @update:model-value="(on: unknown) => set(j, on === true)"
        >{{ name }} <span class="soft">{{ under }}</span></el-checkbox
      >
    </div>
    <p v-if="found.length > MOST_SHOWN" class="soft">
      and {{ groupThousands(found.length - MOST_SHOWN) }} more: search to find them.
    </p>
  </section>
</template>

<style scoped>
.take-columns {
  font-size: 13px;
}
p {
  margin: 0 0 4px;
}
.boxes {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(190px, 1fr));
  max-height: 180px;
  margin-top: 4px;
  overflow: auto;
}
.el-checkbox {
  height: 26px;
  margin-right: 8px;
  overflow: hidden;
}
</style>
