<script setup lang="ts">
import type { FirstPicture } from '../../../demo/first-picture'
import drawn from '~/generated/first-picture.json'

/** What the program is, by a job of the demo. */
const picture = drawn as FirstPicture
const narrow = useMediaQuery('(max-width: 900px)')
</script>

<template>
  <figure data-test="first-picture">
    <DrawingView
      :drawing="narrow ? picture.narrow : picture.wide"
      :label="`${picture.job} of the demo: its section, and the level along the signal's way`"
    />
    <figcaption>
      <span class="fig big">{{ picture.promise }}</span>
      <span
        >Mbit/s down {{ picture.where }}<br /><strong>{{ picture.words }}</strong></span
      >
      <span class="soft">{{ picture.job }}, a job of the demo</span>
    </figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
  border: 1px solid var(--mv-ink);
  background: var(--mv-sheet);
  overflow: hidden;
}
figure :deep(svg) {
  width: 100%;
  height: auto;
}
figcaption {
  display: flex;
  align-items: center;
  gap: 16px;
  padding: 10px 18px;
  background: var(--mv-foot);
  color: var(--mv-foot-ink);
}
.big {
  font-size: 30px;
  font-weight: 600;
  white-space: nowrap;
}
figcaption .soft {
  margin-left: auto;
  color: var(--mv-foot-soft);
}
@media (max-width: 900px) {
  .big {
    font-size: 24px;
  }
  figcaption .soft {
    display: none;
  }
}
</style>
