<script setup lang="ts">
import { feedsOf, sourcesOf } from '#core/judge'
import type { BoxFeed } from '#core/judge'
import { FEED_THROUGH, movesAbout } from '#core/job'
import type { Feed, Fixture } from '#core/job'
import { between, buildingOf, nearestTo } from '#core/site'
import { jointM, LEAD_BESIDE_SOURCE_MM, MOST_DROP, SOURCE_V } from '#core/chain'
import type { TreeNode } from '#core/chain'
import { converterSteps, inverterSteps, removeSteps, rewireSteps, supplyLeadSteps, upsSteps } from '#core/fitting'
import type { Step } from '#core/fitting'
import { wireById } from '#core/catalogue'
import { length, num } from '#core/units'

/** What each box is fed by: every wire with what arrives, its fuse, what it takes of a battery a day; PoE; the plug. */
const store = useOpened()
const prefs = usePrefs()
const session = useSession()
const feeds = computed(() =>
  store.result.tree ? feedsOf(store.doc, store.result.tree, store.job.kind, buildingOf(store.here)) : [],
)
const aboard = computed(() => movesAbout(store.job.kind))
const write = (f: BoxFeed, fields: Partial<Feed>) =>
  store.commit([{ table: 'nodes', op: 'update', rowId: f.at.node.id, fields: { feed: { ...f.feed, ...fields } } }], 'a feed')
const set = (f: BoxFeed, field: keyof Feed) => (v: unknown) => write(f, { [field]: v })
const m = (v: number) => length(v, prefs.units)
const farOff = (f: BoxFeed, s: Fixture) => m(between(f.at.node, s).distanceM)
const sources = (f: BoxFeed) =>
  sourcesOf(store.doc, f.supply).map((s, i) => ({
    value: s.id,
    title: `${s.name || `${s.kind} ${i + 1}`}, ${farOff(f, s)} off`,
  }))
const take = (f: BoxFeed) => (v: string | null) =>
  store.commit([{ table: 'nodes', op: 'update', rowId: f.at.node.id, fields: { sourceId: v } }], 'fed from')
/** Where what is planned is laid: a UPS stands by the socket that the box would be fed from. */
const on = computed(() => {
  const { tree } = store.result
  return tree ? { job: store.job, building: buildingOf(store.here), design: tree.design, tree } : null
})
const commit = (steps: readonly Step[], label: string) => store.commitSteps(steps, label)
/** what the lead comes to: an inverter or a converter that is planned beside the box, else the box */
const fedAt = (f: BoxFeed): TreeNode => f.planned?.way.parts.at(-1) ?? f.at
function lay(f: BoxFeed): void {
  if (on.value && f.source && f.wire) void commit(supplyLeadSteps(on.value, fedAt(f), f.source, f.wire), 'a supply lead')
}
function takeWire(f: BoxFeed, id: string): void {
  const wire = wireById(id)
  if (!wire) return
  if (f.planned && on.value) void commit(rewireSteps(on.value.tree, f.at, wire), 'another wire')
  else void write(f, { wire: id })
}
const converter = (f: BoxFeed) => on.value && commit(converterSteps(on.value.tree, f.at), 'a converter')
/** what a UPS would feed: the box, or the injector that feeds it over its data cable */
const plugged = (f: BoxFeed): TreeNode => f.data?.injector ?? f.at
const bridge = (f: BoxFeed) => on.value && commit(upsSteps(on.value, plugged(f), f.source), 'a UPS')
const takeOut = (at: TreeNode) => on.value && commit(removeSteps(on.value.tree, at), `take out ${at.name}`)
/** off a UPS: its plug goes into the wall again */
function unplug(f: BoxFeed): void {
  const [joint] = f.planned!.way.joints
  if (joint) void commit([{ table: 'runs', op: 'delete', rowId: joint.run.id, fields: {} }], 'off the UPS')
}
const wired = (f: BoxFeed) => f.planned!.way.joints.filter(j => j.run.partId)
/** of what lies between the tap and what changes the supply, or the box: of a lead of several pieces the first is changed */
const setLength = (f: BoxFeed) => (lengthM: number) => {
  const [joint] = wired(f)
  return joint && commit([{ table: 'runs', op: 'update', rowId: joint.run.id, fields: { lengthM } }], 'a length')
}
const leadM = (f: BoxFeed) => (wired(f)[0] ? jointM(wired(f)[0]!) : null)
const parts = (f: BoxFeed) => (f.planned?.begins || f.planned?.inverter ? f.planned.way.parts : [])
const batteries = computed(() => sourcesOf(store.doc, '12 V'))
function invert(f: BoxFeed): void {
  const feed = nearestTo(plugged(f).node, batteries.value)
  if (on.value && feed) void commit(inverterSteps(on.value, plugged(f), feed), 'an inverter')
}
const VOLTS = ([12, 24] as const).map(value => ({ value, title: `${value} V` }))
const THROUGH = FEED_THROUGH.map(value => ({ value, title: value === 'lead' ? 'a lead' : `its ${value}` }))
const POE = (['standard', 'passive'] as const).map(value => ({ value, title: value }))
const minutes = (v: number) => (v < 90 ? `${num(v)} minutes` : `${num(v / 60, 1)} hours`)
</script>

<template>
  <section>
    <h2>Feeds</h2>
    <p v-if="!feeds.length" class="soft">No box that wants power yet.</p>
    <div v-for="f in feeds" :key="f.at.node.id" class="feed" data-test="feed">
      <p>
        <b>{{ f.at.name }}</b>, {{ num(f.powerW) }} W by {{ f.supply
        }}<span v-if="f.lengthM !== null" class="soft">, {{ m(f.lengthM) }} from {{ f.source!.name || f.source!.kind }}</span>
      </p>
      <MvChoice
        v-if="sources(f).length > 1"
        class="from"
        label="fed from"
        :value="f.source!.id"
        :choices="sources(f)"
        :disabled="!session.mayEdit"
        :save="take(f)"
        data-test="fed-from"
      />
      <template v-if="f.wired">
        <p v-if="f.lengthM === null" class="soft">
          No 12 V feed is noted on the site: put one on the picture in Place, and the wire is worked out.
        </p>
        <template v-else>
          <p v-if="f.planned?.begins" class="planned" data-test="supply-lead">
            <span>
              {{
                [...f.planned.way.parts]
                  .reverse()
                  .map(p => p.name)
                  .join(' → ')
              }}
              → {{ f.at.name }}
            </span>
            <CableLength :length-m="leadM(f)" :save="setLength(f)" />
          </p>
          <p v-if="session.mayEdit" class="acts">
            <button v-if="!f.planned?.begins && f.wire" type="button" class="press small" data-test="lay-supply" @click="lay(f)">
              lay a lead from {{ f.source!.name || f.source!.kind }}
            </button>
            <button
              v-if="f.planned?.begins && !f.planned.converter && !f.planned.inverter"
              type="button"
              class="press small"
              data-test="converter"
              @click="converter(f)"
            >
              put a converter beside it
            </button>
            <button v-for="p in parts(f)" :key="p.node.id" type="button" class="plain" @click="takeOut(p)">
              take out {{ p.name }}
            </button>
          </p>
          <table>
            <thead>
              <tr>
                <th>wire</th>
                <th>at the box, from {{ num(SOURCE_V[f.feed.volts][0], 1) }} V</th>
                <th>drop</th>
                <th>fuse</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="t in f.tried" :key="t.wire.id" :class="{ on: t.wire.id === f.wire?.id }">
                <td>
                  <button
                    type="button"
                    :disabled="!session.mayEdit"
                    :data-test="`wire-${t.wire.id}`"
                    @click="takeWire(f, t.wire.id)"
                  >
                    {{ t.wire.words }}
                  </button>
                </td>
                <td class="fig">{{ t.fed.volts === null ? 'starves' : `${num(t.fed.volts, 2)} V` }}</td>
                <td class="fig" :class="{ error: t.fed.dropShare === null || t.fed.dropShare > MOST_DROP }">
                  {{ t.fed.dropShare === null ? '–' : `${num(100 * t.fed.dropShare, 1)} %` }}
                </td>
                <td class="fig">{{ t.fuseA === null ? 'none' : `${num(t.fuseA, t.fuseA % 1 ? 1 : 0)} A` }}</td>
              </tr>
            </tbody>
          </table>
          <div class="fields">
            <MvChoice
              label="source"
              :value="f.feed.volts"
              :choices="VOLTS"
              :disabled="!session.mayEdit"
              :save="set(f, 'volts')"
            />
            <MvChoice
              v-if="!f.planned"
              label="through"
              :value="f.feed.through"
              :choices="THROUGH"
              :disabled="!session.mayEdit"
              :save="set(f, 'through')"
            />
            <MvNumber
              label="fuse"
              :value="f.feed.fuseA"
              unit="A"
              :low="0.1"
              :high="200"
              :hint="f.fuseA === null ? undefined : num(f.fuseA, f.fuseA % 1 ? 1 : 0)"
              :save="set(f, 'fuseA')"
              data-test="fuse"
            />
            <MvNumber
              label="it breaks"
              :value="f.feed.breaksA"
              unit="A"
              :low="1"
              :high="200000"
              :decimals="0"
              :save="set(f, 'breaksA')"
              data-test="breaks"
            />
            <MvNumber
              label="source into a short"
              :value="f.feed.faultA"
              unit="A"
              :low="1"
              :high="200000"
              :decimals="0"
              :save="set(f, 'faultA')"
            />
            <MvNumber
              v-if="f.supply === '12 V'"
              label="box runs from"
              :value="f.feed.lowestV"
              unit="V"
              :low="1"
              :high="60"
              :decimals="1"
              :save="set(f, 'lowestV')"
            />
          </div>
          <p v-if="f.fuseSays" data-test="fuse-says" :class="{ error: 'refused' in f.fuseSays }">
            {{
              'refused' in f.fuseSays
                ? `Fuse: ${f.fuseSays.refused}.`
                : `${num(f.fuseSays.amps, 1)} A stands between ${num(f.fuseSays.low, 1)} A of load and ${num(f.fuseSays.high)} A of wire.`
            }}
          </p>
          <p class="soft">
            Fuse within {{ LEAD_BESIDE_SOURCE_MM }} mm of the source, in a tap of its own where a legend names it; the box screwed
            down before it is plugged in.
            {{
              store.job.kind === 'boat'
                ? 'Two wires to the common negative, never hull or engine.'
                : 'Return to bare metal under a factory bolt, never of a seat belt, airbag, brake or fuel.'
            }}
          </p>
        </template>
      </template>
      <p v-if="f.ahADay !== null" data-test="ah-a-day">
        Takes <b class="fig">{{ num(f.ahADay, 1) }} Ah</b> a day of the battery{{
          f.feed.through === 'inverter' ? ', the inverter’s waste with it' : ''
        }}.
      </p>
      <p v-if="f.planned?.inverter" class="soft">
        {{ f.at.name }} is plugged into {{ f.planned.inverter.name }}, {{ num(f.planned.inverterW) }} W on it of
        {{ num(f.planned.inverter.part.mostW ?? 0) }} W. What it gives can kill as the mains can: dry, its case bonded as its
        maker says, nothing beyond its sockets; the rest is an electrician’s.
      </p>
      <template v-else-if="f.supply === 'mains'">
        <p class="soft">
          By its plug, with surge protection of 1,000 J or more; anything beyond a plug is an electrician’s. Where the plug
          reaches decides where the box hangs.
        </p>
        <div class="fields">
          <MvNumber
            v-if="f.feed.upsWh !== null && !f.planned?.ups"
            label="bridged by a battery of"
            :value="f.feed.upsWh"
            unit="W·h"
            :low="1"
            :high="100000"
            :decimals="0"
            :save="set(f, 'upsWh')"
            data-test="ups"
          />
          <MvChoice
            v-if="aboard"
            label="through"
            :value="f.feed.through"
            :choices="THROUGH"
            :disabled="!session.mayEdit"
            :save="set(f, 'through')"
          />
        </div>
      </template>
      <template v-if="f.supply !== '12 V' && !f.planned?.inverter">
        <p v-if="f.upsMin !== null" data-test="ups-says">
          {{ f.planned?.ups ? `On ${f.planned.ups.name}, ${num(f.planned.upsW)} W in all: a` : 'A' }} failure is bridged for about
          {{ minutes(f.upsMin) }}.
        </p>
        <p v-if="session.mayEdit && (f.supply === 'mains' || f.data?.injector)" class="acts">
          <button v-if="!f.planned" type="button" class="press small" data-test="put-ups" @click="bridge(f)">
            put {{ plugged(f).name }} on a UPS
          </button>
          <button
            v-if="!f.planned && batteries.length"
            type="button"
            class="press small"
            data-test="put-inverter"
            @click="invert(f)"
          >
            put {{ plugged(f).name }} on an inverter
          </button>
          <template v-if="f.planned?.ups">
            <button type="button" class="plain" data-test="off-ups" @click="unplug(f)">off the UPS</button>
            <button type="button" class="plain" @click="takeOut(f.planned.ups)">take out {{ f.planned.ups.name }}</button>
          </template>
        </p>
      </template>
      <template v-if="f.poe">
        <p>
          <template v-if="f.poe.poeClass !== null">Class {{ f.poe.poeClass }}: {{ num(f.poe.arrivesW, 1) }} W arrive.</template>
          <template v-else-if="f.poe.volts !== null"
            >{{ num(f.poe.volts, 1) }} V arrive over the spare pairs: 100 Mbit/s then.</template
          >
          <template v-else>Nothing arrives over the spare pairs.</template>
          <span class="soft"> Lamps at both ends tell which side is dark.</span>
        </p>
        <div class="fields">
          <MvChoice
            label="injector or switch"
            :value="f.feed.poe"
            :choices="POE"
            clearable
            :disabled="!session.mayEdit"
            :save="set(f, 'poe')"
            data-test="poe"
          />
          <MvNumber
            label="passive gives"
            :value="f.feed.poeV"
            unit="V"
            :low="5"
            :high="60"
            :decimals="0"
            :save="set(f, 'poeV')"
          />
        </div>
      </template>
      <div v-if="f.comesIn" class="ticks2">
        <label
          ><input
            type="checkbox"
            :checked="f.feed.arrested"
            :disabled="!session.mayEdit"
            data-test="arrested"
            @change="write(f, { arrested: !f.feed.arrested })"
          />
          an arrestor stands in its line where that comes in</label
        >
      </div>
      <div v-if="aboard" class="ticks2">
        <label
          ><input
            type="checkbox"
            :checked="f.feed.fumes"
            :disabled="!session.mayEdit"
            data-test="fumes"
            @change="write(f, { fumes: !f.feed.fumes })"
          />
          petrol or gas collects there</label
        >
        <label v-if="f.feed.fumes"
          ><input
            type="checkbox"
            :checked="f.feed.ignitionProtected"
            :disabled="!session.mayEdit"
            @change="write(f, { ignitionProtected: !f.feed.ignitionProtected })"
          />
          the box is ignition-protected</label
        >
      </div>
    </div>
    <CautionTicks section="route" />
  </section>
</template>

<style scoped>
.from {
  max-width: 320px;
}
.feed {
  padding: 6px 0 12px;
  border-bottom: 1px solid var(--mv-line);
}
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 13px;
}
th,
td {
  text-align: right;
  padding: 4px;
  border-bottom: 1px solid var(--mv-line);
}
th {
  font-weight: 400;
  color: var(--mv-soft);
  font-size: 12.5px;
}
th:first-child,
td:first-child {
  text-align: left;
}
td button {
  background: none;
  border: 0;
  padding: 0;
  color: var(--mv-ink);
  cursor: pointer;
}
tr.on {
  background: var(--mv-sheet);
}
tr.on td,
tr.on td button {
  font-weight: 700;
}
.fields {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
  margin: 8px 0;
}
.ticks2 {
  display: grid;
  gap: 4px;
}
.planned {
  margin-top: 14px;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 120px;
  gap: 12px;
  align-items: center;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: center;
}
.acts .plain {
  min-height: 44px;
}
@media (max-width: 900px) {
  td button,
  .ticks2 label {
    min-height: 44px;
  }
}
</style>
