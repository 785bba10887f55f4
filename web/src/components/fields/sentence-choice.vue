<script setup lang="ts" generic="T extends string | number | boolean">
import { computed } from 'vue';

/** A word of a sentence that is chosen from a list; a long list can be searched by typing. */
const props = defineProps<{
  options: readonly { value: T; text: string; group?: string; whyNot?: string | null }[];
  disabled?: boolean;
}>();
const chosen = defineModel<T>({ required: true });

const SEARCHED_FROM = 9;
const groups = computed(() => {
  const names = [...new Set(props.options.map(({ group }) => group))];
  return names.map((name) => ({ name, options: props.options.filter(({ group }) => group === name) }));
});
</script>

<template>
  <el-select
    v-model="chosen"
    class="field choice"
    :data-chosen="chosen"
    popper-class="choices"
    :filterable="options.length >= SEARCHED_FROM"
    default-first-option
    :disabled="disabled"
    :fit-input-width="false"
    :show-arrow="false"
    :empty-values="[null, undefined]"
    no-match-text="no match"
  >
    <el-option-group v-for="{ name, options: some } in groups" :key="name" :label="name">
      <el-option
        v-for="{ value, text, whyNot } in some"
        :key="String(value)"
        :value="value"
        :label="text"
        :data-value="value"
        :disabled="!!whyNot"
        ><template v-if="whyNot"
          >{{ text }} <span class="why-not">– {{ whyNot }}</span></template
        ></el-option
      >
    </el-option-group>
  </el-select>
</template>
