<script setup lang="ts">
import type { Tree, TreeNode } from '#core/chain'
import {
  maySplit,
  moveSteps,
  serviceSteps,
  splitterOf,
  standInAntennas,
  standInSteps,
  withoutService,
  withoutSplitter,
} from '#core/fitting'
import { SERVICES } from '#core/job'
import type { Service } from '#core/job'
import { horizonKm, serviceAntennas } from '#core/judge'
import { buildingOf } from '#core/site'
import { distance } from '#core/units'

/** Other services aboard: each with its antenna at a height of its own, how far it sees, and its set. */
const props = defineProps<{ tree: Tree }>()
const store = useOpened()
const session = useSession()
const prefs = usePrefs()
const { unit, factor } = useLengths()
const antennas = computed(() => serviceAntennas(props.tree.nodes))
const WORDS: Record<Service, string> = {
  'VHF': 'VHF radio, the one that is safety',
  'AIS': 'AIS, sees ships and is seen',
  'Wi-Fi': 'long-range Wi-Fi',
  'position': 'position',
  'broadcast': 'broadcast radio',
}
const choices = SERVICES.map(value => ({ value, title: WORDS[value] }))
const add = (service: Service) => store.commitSteps(serviceSteps(store.here, props.tree.design, service), `add ${service}`)
/** another antenna’s height over the water: what people mean by range */
const OTHER_M = 4
const away = (km: number) => distance(1000 * km, prefs.units)
const sees = ({ node, part }: TreeNode): string =>
  part.kind === 'service' && (part.service === 'VHF' || part.service === 'AIS')
    ? `sees ${away(horizonKm(node.upM))} to the horizon, ${away(horizonKm(node.upM, OTHER_M))} to an antenna 4 m up`
    : ''
const move = (id: string) => (upM: number) => {
  const on = { job: store.job, building: buildingOf(store.here), tree: props.tree }
  return store.commitSteps(moveSteps(on, [{ table: 'nodes', op: 'update', rowId: id, fields: { upM } }]), 'a height')
}
const splitter = computed(() => splitterOf(props.tree))
const standIn = () => store.commitSteps(standInSteps(store.here, props.tree.design, props.tree), 'a splitter for VHF and AIS')
const noStandIn = () => store.commitSteps(withoutSplitter(props.tree), 'take out the splitter')
const takeOut = (at: TreeNode) => store.commitSteps(withoutService(props.tree, at.node.id), `take out ${at.name}`)
</script>

<template>
  <section class="services" aria-label="Other services aboard" data-test="services">
    <h2>Other services aboard</h2>
    <p v-if="!antennas.length" class="soft">
      None noted. What shares mast, duct and glands with the cellular antenna goes here: its height, its cable, its distance.
    </p>
    <ul>
      <li v-for="at in antennas" :key="at.node.id" :data-test="`service-${at.part.service}`">
        <span
          ><b>{{ at.name }}</b> <small class="soft">{{ sees(at) }}</small></span
        >
        <MvNumber
          label="Over the water"
          :unit="unit"
          :factor="factor"
          :value="at.node.upM"
          :low="0"
          :high="80"
          required
          :decimals="1"
          :save="move(at.node.id)"
        />
        <button v-if="session.mayEdit" type="button" class="plain" :aria-label="`take out ${at.name}`" @click="takeOut(at)">
          take out
        </button>
      </li>
    </ul>
    <p v-if="splitter" class="split" data-test="splitter">
      <span
        ><b>{{ splitter.name }}</b
        >&ensp;
        <small class="soft">{{
          antennas.length > 1 && standInAntennas(tree).length > 1
            ? 'each radio on its own antenna, or both on either where one is lost; all three are tried on the card'
            : 'both radios on one antenna: a second one would stand in for it'
        }}</small></span
      >
      <button v-if="session.mayEdit" type="button" class="plain" data-test="no-stand-in" @click="noStandIn">take out</button>
    </p>
    <p v-else-if="maySplit(tree) && session.mayEdit" class="split">
      <span class="soft">One antenna can serve both radios where the other is lost.</span>
      <button type="button" class="plain" data-test="stand-in" @click="standIn">put a splitter between VHF and AIS</button>
    </p>
    <MvChoice
      v-if="session.mayEdit"
      class="add"
      label="Add a service"
      :value="null"
      :choices="choices"
      data-test="add-service"
      :save="(s: Service | null) => (s ? add(s) : undefined)"
    />
  </section>
</template>

<style scoped>
.services {
  padding: 12px 20px;
  border-bottom: 1px solid var(--mv-line);
}
ul {
  list-style: none;
  margin: 8px 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 150px auto;
  gap: 12px;
  align-items: center;
  padding: 4px 0;
}
/* the splitter, in line with the services */
.split {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  margin-bottom: 8px;
}
.add {
  max-width: 320px;
}
@media (max-width: 900px) {
  li {
    grid-template-columns: 1fr auto;
  }
  li > :first-child {
    grid-column: 1 / -1;
  }
  .plain {
    min-height: 44px;
  }
}
</style>
