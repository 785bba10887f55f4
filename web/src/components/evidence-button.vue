<script setup lang="ts">
import { useEvidence } from '../stores/evidence.js';

/** Opens the evidence of the study, and says how much there is. */
const evidence = useEvidence();
</script>

<template>
  <el-button link class="evidence" @click="evidence.drawerOpen = true">
    Evidence <span class="count">{{ evidence.items.length }}</span>
  </el-button>
</template>

<style scoped>
.evidence.evidence {
  --el-button-text-color: var(--ink);
  font: 600 13px var(--sans);
  white-space: nowrap;
}
.count {
  display: inline-block;
  min-width: 20px;
  margin-left: 3px;
  border-radius: 10px;
  padding: 0 7px;
  background: var(--green);
  color: var(--card);
  text-align: center;
}
</style>
