<script setup lang="ts">
import ClaimPage from './claim-page.vue';
import { useClaims } from './use-claims.js';

/** Tests of claims and of differences, one claim at a time. */
const { typed, looked, claim, options } = useClaims();
</script>

<template>
  <ClaimPage
    :key="`${claim} ${typed}`"
    v-model:claim="claim"
    v-model:typed="typed"
    :options="options"
    :name="looked.name"
  />
</template>
