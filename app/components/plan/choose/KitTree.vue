<script setup lang="ts">
import { partById } from '#core/catalogue'
import { isCable, jointM } from '#core/chain'
import type { Outline } from '#core/chain'
import { length } from '#core/units'

/** A kit that branches: a line for each part, indented under what feeds it. */
const { kit } = defineProps<{ rows: Outline[]; kit: KitUse }>()
const emit = defineEmits<{ open: [o: Outline] }>()
const { said, edit, lines } = kit
const session = useSession()
const prefs = usePrefs()
const t = useSay()
const lineOf = (o: Outline): string => lines.value.find(l => l.id === o.joint?.run.partId)?.name ?? 'a cable'
/** one menu for all rows: hundreds of parts each with a list of their own are slow to draw */
const menu = shallowRef<{ o: Outline; target: HTMLElement; what: 'line' | 'change' } | null>(null)
const shown = ref(false)
async function openMenu(e: MouseEvent, o: Outline, what: 'line' | 'change') {
  menu.value = { o, target: e.currentTarget as HTMLElement, what }
  await nextTick()
  shown.value = true
}
</script>

<template>
  <div class="tree" tabindex="0" role="region" aria-label="The signal tree">
    <table>
      <thead>
        <tr>
          <th>part, in the order of the signal</th>
          <th>cable to it</th>
          <th class="r">length</th>
          <th class="r">loss</th>
          <th class="r">part</th>
          <th class="r">after it</th>
          <th />
        </tr>
      </thead>
      <tbody>
        <template v-for="(o, i) in rows" :key="`${o.at.node.id} ${o.visit.feed} ${i}`">
          <tr :class="{ root: !o.joint }" :data-role="said.role(o.at)">
            <td class="name" :style="{ paddingLeft: `${8 + o.depth * 22}px` }">
              <i v-if="o.depth" class="elbow" aria-hidden="true" />
              <button type="button" class="plain" @click="emit('open', o)">
                {{ said.count(o) > 1 ? `${said.count(o)} × ` : '' }}{{ o.at.name }}{{ o.at.node.own ? ' *' : '' }}
              </button>
            </td>
            <td>
              <button
                v-if="o.joint?.run.partId"
                type="button"
                class="plain"
                :disabled="!session.mayEdit"
                :aria-label="`cable to ${o.at.name}: ${lineOf(o)}`"
                @click="openMenu($event, o, 'line')"
              >
                {{ lineOf(o) }}
              </button>
              <span v-if="o.joint?.leads.length" class="soft">{{ said.leads(o.joint) }}</span>
              <span v-else-if="o.joint && !o.joint.run.partId" class="soft">screwed on</span>
            </td>
            <td class="r fig">
              <CableLength
                v-if="o.joint?.run.partId && !o.joint.leads.length"
                phrase
                :length-m="o.joint.run.lengthM"
                data-test="tree-length"
                :save="v => edit.setRun(o, { lengthM: v })"
              />
              <template v-else>{{ o.joint && isCable(o.joint) ? length(jointM(o.joint), prefs.units) : '' }}</template>
              <small v-if="o.joint" class="soft">{{ said.spare(o.joint) }}</small>
            </td>
            <td class="r fig">{{ o.joint ? said.loss(o.joint) : '' }}</td>
            <td class="r fig">{{ said.gain(o) }}</td>
            <td class="r fig">{{ said.rsrp(o) }}</td>
            <td class="r edits">
              <button
                v-if="session.mayEdit && (o.joint || kit.freePorts(o.at).length)"
                type="button"
                class="plain"
                aria-haspopup="menu"
                :aria-label="`change at ${o.at.name}`"
                @click="openMenu($event, o, 'change')"
              >
                change
              </button>
            </td>
          </tr>
          <tr v-for="f in [...said.atRun(o), ...said.atPart(o)]" :key="f.key" class="said">
            <td colspan="7" :style="{ paddingLeft: `${30 + o.depth * 22}px` }">
              <span class="joint" :class="f.severity">{{ t(f.title) }}</span>
            </td>
          </tr>
        </template>
      </tbody>
    </table>
    <v-menu v-if="menu" v-model="shown" :target="menu.target" max-height="420">
      <v-list v-if="menu.what === 'line'" density="compact">
        <v-list-item
          v-for="l in lines"
          :key="l.id"
          :title="l.name"
          :active="l.id === menu.o.joint?.run.partId"
          @click="edit.setLine(menu.o, l.id)"
        />
      </v-list>
      <v-list v-else density="compact">
        <v-list-item
          v-for="p in kit.freePorts(menu.o.at)"
          :key="p.id"
          :title="`inside antenna on port ${p.id}`"
          @click="edit.addAntenna(menu.o.at, p)"
        />
        <template v-if="menu.o.joint">
          <v-list-item
            v-for="id in INSERTS"
            :key="id"
            :title="`put in before it: ${partById(id)!.name}`"
            @click="edit.insertInto(menu.o.joint, id)"
          />
          <v-list-item title="take it out" @click="edit.remove(menu.o)" />
        </template>
      </v-list>
    </v-menu>
  </div>
</template>

<style scoped>
.tree {
  overflow: auto;
  background: var(--mv-sheet);
  border-bottom: 1px solid var(--mv-ink);
  max-height: 62%;
  flex: none;
}
.tree table {
  width: 100%;
  border-collapse: collapse;
}
.tree th {
  position: sticky;
  top: 0;
  background: var(--mv-sheet);
  z-index: 1;
  text-align: left;
  font-weight: 400;
  font-size: 12.5px;
  color: var(--mv-soft);
  padding: 4px 8px;
  border-bottom: 1px solid var(--mv-line);
}
.tree td {
  padding: 3px 8px;
  border-bottom: 1px solid var(--mv-line);
  white-space: nowrap;
}
.tree td.name {
  position: relative;
}
.tree tr.root td {
  border-top: 2px solid var(--mv-ink);
}
.tree tr.said td {
  border: 0;
  padding-bottom: 4px;
}
.elbow {
  display: inline-block;
  width: 10px;
  height: 12px;
  border-left: 1px solid var(--mv-ink);
  border-bottom: 1px solid var(--mv-ink);
  margin: 0 6px 4px -14px;
}
.r {
  text-align: right !important;
}
.tree small {
  margin-left: 6px;
}
.name .plain {
  border-bottom-color: var(--mv-line);
}
</style>
