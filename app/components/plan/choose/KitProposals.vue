<script setup lang="ts">
import { nowUtc } from '~/replica/clock'
import type { Kit, PartChoice } from '#core/fitting'
import type { Proposal } from '#core/solve'
import { sayExpected } from '#core/promise'
import { length, num } from '#core/units'

/** Three complete kits for this site: the least work, the best result, the least cost. */
const props = defineProps<{ kit: Kit; busy: boolean }>()
const emit = defineEmits<{ lay: [kit: Kit, choice: PartChoice] }>()
const store = useOpened()
const prefs = usePrefs()
const session = useSession()
const crewParts = useCrewParts()
const { engine } = useEngine()
const { answer: found, failed } = useAsked<Proposal[]>([() => store.doc, () => props.kit, () => crewParts.parts.value], () =>
  engine.proposals(toRaw(store.doc), props.kit, JSON.parse(JSON.stringify(crewParts.parts.value)), nowUtc()),
)
</script>

<template>
  <section class="proposals" aria-label="Kits proposed" data-test="proposals">
    <h2>
      Three kits for this site <small class="soft">complete, every plug fits; laid out afresh in place of what is there</small>
    </h2>
    <p v-if="failed" class="error" role="alert">{{ failed }}</p>
    <p v-else-if="!found" class="soft">Searching the parts…</p>
    <p v-else-if="!found.length" class="soft">
      No part of the catalogue passes this band with that approach. Another band, or a part of your own.
    </p>
    <ol v-else>
      <li v-for="p in found" :key="p.aim" :data-test="`kit-${p.aim.replaceAll(' ', '-')}`">
        <h3>{{ p.aim }}</h3>
        <p class="got">
          <template v-if="p.variant.down"
            ><b class="fig">{{ sayExpected(p.variant.down) }}</b>
            <small class="soft">Mbit/s down {{ p.variant.where }}</small></template
          >
          <small v-else class="soft">no promise yet: a reading or a mast is missing</small>
        </p>
        <ul>
          <li v-for="name in p.made" :key="name">{{ name }}</li>
        </ul>
        <p class="soft">
          {{ num(p.variant.hours, 1) }} h · {{ p.variant.holes ? `${p.variant.holes} holes` : 'no hole' }} ·
          {{ COST_WORDS[p.variant.cost] }} · {{ p.variant.parts }} parts, {{ p.variant.adapters }} of them adapters ·
          {{ length(p.variant.metres, prefs.units, 0) }} of cable
        </p>
        <button
          type="button"
          class="press small"
          :disabled="busy || !session.mayEdit"
          :data-test="`take-${p.aim.replaceAll(' ', '-')}`"
          @click="emit('lay', p.kit, p.choice)"
        >
          lay it out
        </button>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.proposals {
  padding: 12px 20px 18px;
}
h2 small {
  font-weight: 400;
  padding-left: 10px;
}
ol {
  list-style: none;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 24px;
}
ol > li {
  border-top: 3px solid var(--mv-ink);
  padding-top: 6px;
  display: flex;
  flex-direction: column;
  gap: 4px;
  align-items: start;
}
.got {
  display: flex;
  gap: 8px;
  align-items: baseline;
}
.got b {
  font-size: 20px;
}
ul {
  padding-left: 16px;
  margin: 0;
}
p {
  margin: 0;
}
.press {
  margin-top: auto;
}
@media (max-width: 900px) {
  ol {
    grid-template-columns: 1fr;
  }
  .press {
    min-height: 48px;
  }
}
</style>
