<script setup lang="ts">
/** For who has no study of their own yet: what this is for, and the ways to begin. */
const emit = defineEmits<{ paste: []; open: []; makeUp: [] }>();
</script>

<template>
  <section class="card first" aria-label="First steps">
    <p class="what">
      Readings in, pictures and tests, a decision with its reasons, and a record that anyone can recompute.
    </p>
    <ol>
      <li>
        <el-button @click="emit('paste')">Paste readings</el-button>
        <p class="soft">
          Copy a column from a spreadsheet and press <kbd>Ctrl</kbd> + <kbd>V</kbd> here. It is shown before anything is
          stored.
        </p>
      </li>
      <li>
        <el-button @click="emit('open')">Open a file</el-button>
        <p class="soft">CSV, TSV, .xlsx, JSON, a data package, or a saved study; it can be dropped here too.</p>
      </li>
      <li>
        <el-button @click="emit('makeUp')">Make some up</el-button>
        <p class="soft">Draw values from a distribution and see what samples of that size look like.</p>
      </li>
    </ol>
    <p class="soft examples">Or look into an example below: each says what it asks.</p>
  </section>
</template>

<style scoped>
.first {
  padding: 16px 20px 12px;
}
.what {
  margin: 0 0 12px;
  font: 500 18px/1.4 var(--serif);
}
ol {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
  gap: 12px 24px;
  margin: 0;
  padding: 0;
  list-style: none;
}
.examples {
  margin-top: 12px;
  border-top: 1px solid var(--line);
  padding-top: 8px;
}
li p {
  margin: 6px 0 0;
}
p {
  margin: 0;
  font-size: 13px;
}
</style>
