<script setup lang="ts">
import { nowUtc } from '~/replica/clock'
import { modemsOf } from '#core/chain'
import type { Modem, Tree } from '#core/chain'
import { layoutModemMap } from '#core/drawing'
import { joinByRole } from '#core/fitting'
import { insert, remove, update } from '#core/job'
import type { Edit } from '#core/job'
import { sayExpected } from '#core/promise'
import type { ModemSide } from '#core/solve'
import { num } from '#core/units'

/** Which SIM lies in which slot of which modem, which antenna each hears by, and what each would bring by itself. */
const props = defineProps<{ tree: Tree }>()
const store = useOpened()
const session = useSession()
const { engine } = useEngine()
const { el, width } = useWidth()
const boxes = computed(() =>
  props.tree.routers
    .map(at => ({ at, modems: modemsOf(store.doc, props.tree, at) }))
    .filter(b => b.modems.length > 1 || b.modems.some(m => m.slots.length > 1)),
)
const several = computed(() => boxes.value.some(b => b.modems.length > 1))
const { answer: sides } = useAsked<ModemSide[]>([() => store.whole, () => store.pathsRunning], async () =>
  several.value ? engine.modems(toRaw(store.whole!), nowUtc()) : [],
)
const sideOf = (m: Modem) => sides.value?.find(s => s.routerId === m.at.node.id && s.index === m.index)?.side ?? null
const sims = computed(() => store.doc.sims.map(s => ({ value: s.id, title: [s.name, s.carrier].filter(Boolean).join(', ') })))

/** One card lies in one slot: put into another, it leaves the first. */
const put = (m: Modem, slot: number) => (simId: string | null) => {
  const mine = new Set(props.tree.routers.map(r => r.node.id))
  const row = m.slots.find(s => s.slot === slot)?.row ?? null
  const elsewhere = store.doc.simSlots.filter(r => simId && r.simId === simId && r.id !== row?.id && mine.has(r.nodeId))
  const edits: Edit[] = elsewhere.map(r => remove('simSlots', r.id))
  if (!simId && row) edits.push(remove('simSlots', row.id))
  if (simId) edits.push(row ? update('simSlots', row.id, { simId }) : insert('simSlots', { nodeId: m.at.node.id, slot, simId }))
  return store.commit(edits, 'a SIM in its slot')
}
const joining = computed(() =>
  boxes.value.flatMap(b => props.tree.donors.map(a => joinByRole(props.tree, a, b.at)).filter(steps => steps.length)),
)
const join = () => store.commitSteps(joining.value[0] ?? [], 'join by role')
</script>

<template>
  <section v-if="boxes.length" ref="el" class="modems" aria-label="Modems and SIMs" data-test="modems">
    <div v-for="b in boxes" :key="b.at.node.id">
      <h2>{{ b.at.name }}: SIMs, modems, antennas</h2>
      <DrawingView
        v-if="width > 0"
        :drawing="layoutModemMap(b.modems, Math.min(760, Math.max(300, width - 40)))"
        :label="`which SIM and which antenna each modem of ${b.at.name} has`"
      />
      <div
        v-for="m in b.modems"
        :key="m.index"
        class="modem"
        :class="{ only: b.modems.length === 1 }"
        :data-test="`modem-${m.index + 1}`"
      >
        <b v-if="b.modems.length > 1">Modem {{ m.index + 1 }}</b>
        <MvChoice
          v-for="s in m.slots"
          :key="s.slot"
          :label="`SIM in slot ${s.slot}`"
          :value="s.sim?.id ?? null"
          :choices="sims"
          clearable
          :disabled="!session.mayEdit"
          :save="put(m, s.slot)"
          :data-test="`slot-${s.slot}`"
        />
        <p v-if="b.modems.length > 1" class="brings">
          <template v-if="sideOf(m)?.down">
            <b class="fig">{{ sayExpected(sideOf(m)!.down!) }}</b> Mbit/s down, up
            {{ sideOf(m)!.up ? sayExpected(sideOf(m)!.up!) : '–' }}
            <span class="soft">
              on {{ sideOf(m)!.at!.mast.mast.name }}<template v-if="sideOf(m)!.at!.band">, {{ sideOf(m)!.at!.band }}</template
              ><template v-if="sideOf(m)!.portDbm !== null">, RSRP {{ num(sideOf(m)!.portDbm!) }} dBm at its port</template>
            </span>
          </template>
          <span v-else-if="!m.sim" class="soft">What it brings is told once its SIM is said.</span>
          <span v-else-if="!m.sim.carrier" class="soft">The carrier of {{ m.sim.name }} is not said.</span>
          <span v-else-if="sides" class="soft">No mast of {{ m.sim.carrier }} can be used from here.</span>
        </p>
      </div>
    </div>
    <p v-if="!sims.length" class="soft">No SIM yet: they are entered in Ask, with carrier and plan.</p>
    <button v-if="session.mayEdit && joining.length" type="button" class="press small" data-test="join-by-role" @click="join">
      join the open leads by role
    </button>
  </section>
</template>

<style scoped>
.modems {
  padding: 12px 20px;
  border-bottom: 1px solid var(--mv-line);
}
.modem {
  display: grid;
  grid-template-columns: 80px repeat(auto-fit, minmax(180px, 240px));
  gap: 12px;
  align-items: center;
  padding: 6px 0;
}
.modem.only {
  grid-template-columns: repeat(auto-fit, minmax(180px, 240px));
}
.brings {
  grid-column: 1 / -1;
  margin: 0 0 6px;
}
@media (max-width: 900px) {
  .modem {
    grid-template-columns: 1fr;
    gap: 8px;
  }
}
</style>
