<script setup lang="ts">
import { onMounted } from 'vue';
import PageHead from '../../components/page-head.vue';
import DistributionsView from './distributions-view.vue';

/** The page on its own: no study is open. */
onMounted(() => (document.title = 'Distributions · Verdict'));
</script>

<template>
  <div class="frame">
    <PageHead home />
    <main class="view">
      <h1 class="unseen">Distributions</h1>
      <DistributionsView alone />
    </main>
  </div>
</template>

<style scoped>
.frame {
  display: flex;
  flex-direction: column;
  height: 100%;
  min-height: 600px;
}
.view {
  flex: 1;
  min-height: 0;
  padding: 14px 20px 16px;
}
@media (max-width: 900px) {
  .frame {
    height: auto;
  }
}
</style>
