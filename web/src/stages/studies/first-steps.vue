<script setup lang="ts">
import { QUESTION_WORDS, QUESTIONS, type AskedKind } from '@verdict/contract';

/** For who has no study of their own yet: what this is for, what to do in three steps, and the ways to begin. */
const emit = defineEmits<{ paste: []; open: []; makeUp: []; ask: [asks: AskedKind] }>();
</script>

<template>
  <section class="card first" aria-label="First steps">
    <p class="what">
      From readings to pictures and tests, to a decision with its reasons, and to a record that anyone can recompute.
    </p>
    <ol>
      <li>
        <h2>Enter readings</h2>
        <p class="soft">
          Copy a column from a spreadsheet and press <kbd>Ctrl</kbd> + <kbd>V</kbd> here, or drop a file. It is shown
          before anything is stored.
        </p>
        <p class="ways">
          <el-button size="small" @click="emit('paste')">Paste readings</el-button>
          <el-button size="small" @click="emit('open')">Open a file</el-button>
          <el-button size="small" @click="emit('makeUp')">Try with simulated readings</el-button>
        </p>
      </li>
      <li>
        <h2>Ask a question</h2>
        <p class="soft">
          The path shows the stages in the order of the work. A question marks those that help to answer it.
        </p>
        <p class="asks">
          <el-button v-for="kind in QUESTIONS" :key="kind" link @click="emit('ask', kind)">{{
            QUESTION_WORDS[kind]
          }}</el-button>
        </p>
      </li>
      <li>
        <h2>Decide and report</h2>
        <p class="soft">Keep results with <kbd>K</kbd>. Record the decision with its reasons, and print a report.</p>
      </li>
    </ol>
    <p class="soft examples">Or open an example below; each states its question.</p>
  </section>
</template>

<style scoped>
.first {
  padding: 14px 20px 10px;
}
.what {
  margin: 0 0 10px;
  font: 500 18px/1.4 var(--serif);
}
ol {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.45fr) minmax(0, 1fr);
  gap: 12px 28px;
  margin: 0;
  padding: 0;
  list-style: none;
  counter-reset: step;
}
h2 {
  margin: 0 0 2px;
  font: 600 14px var(--sans);
}
h2::before {
  margin-right: 7px;
  color: var(--green);
  counter-increment: step;
  content: counter(step);
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-top: 8px;
}
.ways .el-button + .el-button {
  margin-left: 0;
}
.asks {
  display: flex;
  flex-wrap: wrap;
  gap: 0 10px;
  margin-top: 4px;
}
.asks .el-button.is-link.is-link {
  --el-button-text-color: var(--green);
  font: 14px/1.5 var(--serif);
}
.asks .el-button.is-link {
  padding-left: 0;
}
@media (max-width: 900px) {
  ol {
    grid-template-columns: minmax(0, 1fr);
  }
}
.examples {
  margin-top: 10px;
  border-top: 1px solid var(--line);
  padding-top: 8px;
}
p {
  margin: 0;
  font-size: 13px;
}
</style>
