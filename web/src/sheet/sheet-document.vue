<script setup lang="ts">
import { DrawnSvg } from './drawn-svg.js';
import { FindingOnPaper } from './finding-on-paper.js';
import { withTimes, type Sheet, type SheetPictures } from './sheet.js';

/** The sheet as it is read: on the page, in print, and in the file that is saved. How moments and figures are written is said from outside. */
const props = defineProps<{
  sheet: Sheet;
  pictures: SheetPictures;
  time: (iso: string) => string;
  /** How its figures are written. */
  figures: (text: string) => string;
}>();
const said = (text: string) => props.figures(withTimes(text, props.time));
/** Figures on a picture are texts of their own between its tags. */
const drawn = (svg: string) => svg.replace(/>([^<]+)</g, (_, text: string) => `>${props.figures(text)}<`);
</script>

<template>
  <article class="sheet-page" aria-label="Report">
    <p class="kicker">{{ sheet.kicker }}</p>
    <h1>{{ sheet.title }}</h1>
    <p v-if="sheet.notVerified" class="mind">
      <b>Not verified</b> This study does not agree with its record: {{ sheet.notVerified }}
    </p>
    <section>
      <h2>Question</h2>
      <p class="serif own">{{ sheet.question }}</p>
    </section>
    <section v-if="sheet.decision" class="decision">
      <h2>Decision</h2>
      <p class="ruling">{{ sheet.decision.words }}</p>
      <p class="serif own">{{ sheet.decision.reason }}</p>
      <p v-if="sheet.decision.leftOpen" class="own">Left open: {{ sheet.decision.leftOpen }}</p>
      <p class="fine">
        {{ sheet.decision.who }}, {{ time(sheet.decision.at) }}, after change {{ sheet.decision.revision }}
      </p>
    </section>
    <section v-if="sheet.headline" class="headline">
      <h2>Basis of the decision</h2>
      <FindingOnPaper :finding="sheet.headline.finding" :said="said" />
      <p class="fine">Evidence {{ sheet.headline.of }}, below.</p>
    </section>
    <section>
      <h2>Readings</h2>
      <p v-for="line in sheet.readings" :key="line">{{ said(line) }}</p>
      <template v-if="sheet.aside.length">
        <p>Set aside:</p>
        <ul>
          <li v-for="line in sheet.aside" :key="line">{{ said(line) }}</li>
        </ul>
      </template>
      <template v-if="sheet.leftIn.length">
        <p>Suspected outliers kept with a reason:</p>
        <ul>
          <li v-for="line in sheet.leftIn" :key="line">{{ said(line) }}</li>
        </ul>
      </template>
    </section>
    <section>
      <h2>Evidence</h2>
      <p v-if="sheet.pieces.length === 0">No evidence was kept.</p>
      <div v-for="(piece, i) in sheet.pieces" :key="piece.id" class="piece" :class="{ leads: piece.leads }">
        <div class="whole">
          <h3>
            <span class="number">{{ i + 1 }}</span> {{ piece.heading }}
          </h3>
          <p v-if="piece.stale" class="mind"><b>Changed</b> {{ piece.stale }}</p>
          <FindingOnPaper :finding="piece.finding" :said="said" />
          <figure v-if="pictures.get(piece.id)">
            <DrawnSvg :svg="drawn(pictures.get(piece.id)!.svg)" :title="pictures.get(piece.id)!.title" />
            <figcaption v-if="pictures.get(piece.id)!.title.toLowerCase() !== piece.heading.toLowerCase()">
              {{ pictures.get(piece.id)!.title }}
            </figcaption>
          </figure>
          <p v-else-if="pictures.has(piece.id)" class="fine">
            This kept result cannot be drawn. Recompute it to see the differences.
          </p>
        </div>
        <p>{{ said(piece.method) }}</p>
        <div v-for="caution in piece.cautions" :key="caution.text" class="mind">
          <p><b>Caution</b> {{ said(caution.text) }}</p>
          <p>{{ caution.answer ? `Answer: ${withTimes(caution.answer, time)}` : 'Not answered.' }}</p>
        </div>
        <p v-if="piece.note" class="own">Note: {{ piece.note }}</p>
        <p class="fine">{{ withTimes(piece.provenance, time) }}</p>
      </div>
    </section>
    <section v-if="sheet.weighed.length || sheet.leftOut.length">
      <h2>Analyses viewed</h2>
      <p v-for="line in sheet.weighed" :key="line">{{ said(line) }}</p>
      <template v-if="sheet.leftOut.length">
        <p>Kept, but excluded from this report:</p>
        <ul>
          <li v-for="line in sheet.leftOut" :key="line">{{ withTimes(line, time) }}</li>
        </ul>
      </template>
    </section>
    <section v-if="sheet.earlier.length">
      <h2>Earlier verdicts</h2>
      <p v-for="line in sheet.earlier" :key="line">{{ withTimes(line, time) }}</p>
    </section>
    <section class="again">
      <h2>Reproduce these results</h2>
      <p v-for="line in sheet.recompute" :key="line" class="fine">{{ line }}</p>
    </section>
    <section v-if="sheet.appendix" class="appendix">
      <h2>{{ sheet.appendix.title }}</h2>
      <table>
        <thead>
          <tr>
            <th v-for="head in sheet.appendix.heads" :key="head" scope="col">{{ head }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(row, i) in sheet.appendix.rows" :key="i">
            <td v-for="(cell, k) in row" :key="k">{{ sheet.appendix.numeric[k] ? said(cell) : cell }}</td>
          </tr>
        </tbody>
      </table>
    </section>
  </article>
</template>
