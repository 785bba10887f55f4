<script setup lang="ts">
import { computed, nextTick, ref, shallowRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api, ApiError } from '../api/client.js';
import { useStudy } from '../stores/study.js';
import { foundPlaces, searched, type Searched } from './found-places.js';
import { placesFrom, type Place } from './places.js';

/** Searches everywhere: studies, columns, stages, families, methods, words. Enter goes there. */
const open = defineModel<boolean>({ required: true });
const router = useRouter();
const route = useRoute();
const store = useStudy();

const text = ref('');
const at = ref(0);
const all = shallowRef<Searched[]>([]);
const problem = ref('');
const input = ref<HTMLInputElement>();

const groups = computed(() => foundPlaces(all.value, text.value));
const flat = computed(() => groups.value.flatMap(({ places }) => places));
const idOf = (place: Place) => `place-${flat.value.indexOf(place)}`;
const current = computed(() => flat.value[at.value] ?? null);
watch(text, () => (at.value = 0));
watch(current, async (place) => {
  await nextTick();
  if (place) document.getElementById(idOf(place))?.scrollIntoView({ block: 'nearest' });
});

async function begin(): Promise<void> {
  text.value = '';
  problem.value = '';
  // The study that is open is the one of the page, not the last one that was.
  const here = typeof route.params.id === 'string' && store.study?.id === route.params.id ? store.study : null;
  all.value = searched(placesFrom([], here));
  try {
    all.value = searched(placesFrom(await api.listStudies(false), here));
  } catch (error) {
    if (!(error instanceof ApiError)) throw error;
    problem.value = `Studies could not be searched: ${error.problem.detail}`;
  }
}
watch(open, (now) => now && void begin(), { immediate: true });

function go(place: Place): void {
  open.value = false;
  void router.push(place.to);
}
function onKey(event: KeyboardEvent): void {
  const { key } = event;
  const step = { ArrowDown: 1, ArrowUp: -1 }[key];
  if (step !== undefined && flat.value.length) {
    event.preventDefault();
    at.value = (at.value + step + flat.value.length) % flat.value.length;
  }
  if (key === 'Enter' && current.value) {
    event.preventDefault();
    go(current.value);
  }
}
</script>

<template>
  <el-dialog
    v-model="open"
    title="Search everywhere"
    width="620"
    top="9vh"
    @open-auto-focus="input?.focus()"
    @opened="input?.focus()"
  >
    <!-- A plain field: that of the component library takes no role, and this one leads a list. -->
    <input
      ref="input"
      v-model="text"
      class="words"
      type="text"
      role="combobox"
      aria-label="Search everywhere"
      aria-controls="places"
      aria-autocomplete="list"
      :aria-expanded="flat.length > 0"
      :aria-activedescendant="current ? idOf(current) : undefined"
      placeholder="a study, column, stage, distribution, test or term"
      autocomplete="off"
      @keydown="onKey"
    />
    <p v-if="problem" class="said-wrong" role="alert">{{ problem }}</p>
    <p v-if="text.trim() && flat.length === 0" class="soft" role="status">Nothing matches all of these words.</p>
    <div id="places" class="places" role="listbox" aria-label="Places">
      <div v-for="{ group, places } in groups" :key="group" role="group" :aria-label="group">
        <p class="soft group" aria-hidden="true">{{ group }}</p>
        <div
          v-for="place in places"
          :id="idOf(place)"
          :key="idOf(place)"
          class="place"
          role="option"
          :aria-selected="place === current"
          @click="go(place)"
          @pointermove="at = flat.indexOf(place)"
        >
          <span class="title">{{ place.title }}</span> <span class="soft about">{{ place.about }}</span>
        </div>
      </div>
    </div>
  </el-dialog>
</template>

<style scoped>
.words {
  width: 100%;
  border: 1px solid var(--line);
  border-radius: 6px;
  padding: 7px 11px;
  background: var(--card);
  color: var(--ink);
  font: 15px var(--sans);
}
.places {
  max-height: 56vh;
  margin-top: 8px;
  overflow: auto;
}
.group {
  margin: 8px 0 2px;
  font-size: 12px;
}
.place {
  display: flex;
  gap: 10px;
  align-items: baseline;
  border-radius: 5px;
  padding: 4px 8px;
  cursor: pointer;
}
.place[aria-selected='true'] {
  background: var(--tint);
}
.title {
  flex: none;
  max-width: 60%;
  font-weight: 500;
  overflow-wrap: anywhere;
}
.about {
  overflow: hidden;
  font-size: 12.5px;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
