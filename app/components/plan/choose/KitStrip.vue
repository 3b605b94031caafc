<script setup lang="ts">
import { isCable } from '#core/chain'
import type { Outline } from '#core/chain'

/** A kit without branches, from the mast to the room: what fits there is changed where it stands. */
const { kit } = defineProps<{ rows: Outline[]; kit: KitUse }>()
const emit = defineEmits<{ open: [o: Outline] }>()
const { said, edit, lines, doing } = kit
const session = useSession()
const t = useSay()
const cables = computed(() => lines.value.map(l => ({ value: l.id, title: l.name })))
</script>

<template>
  <ol class="strip" tabindex="0" aria-label="The kit, in the order of the signal">
    <template v-for="(o, i) in rows" :key="o.at.node.id">
      <li v-if="o.joint && isCable(o.joint)" class="run">
        <svg viewBox="0 0 100 24" preserveAspectRatio="none" aria-hidden="true">
          <path
            v-for="n in o.twins.length + 1"
            :key="n"
            :d="`M0 ${12 + (n - 1 - o.twins.length / 2) * 6}H100`"
            stroke="var(--mv-ink)"
            :stroke-width="said.isKnown(o.joint) ? 3 : 1.6"
            :stroke-dasharray="said.isKnown(o.joint) ? '' : '5 4'"
          />
        </svg>
        <span class="role soft">{{ o.twins.length ? `${o.twins.length + 1} cables alike` : 'cable' }}</span>
        <span v-if="o.joint.leads.length" class="lead" data-test="own-lead">
          {{ said.leads(o.joint) }}{{ o.joint.run.partId ? ', goes on by' : '' }}
        </span>
        <MvChoice
          v-if="o.joint.run.partId"
          phrase
          :value="o.joint.run.partId"
          :label="o.twins.length ? `${o.twins.length + 1} cables alike` : 'Cable'"
          :choices="cables"
          :disabled="!session.mayEdit"
          :save="v => edit.setLine(o, v)"
        />
        <span v-if="o.joint.run.partId" class="cut">
          <CableLength phrase :length-m="o.joint.run.lengthM" :save="v => edit.setRun(o, { lengthM: v })" />
          <v-checkbox
            :model-value="o.joint.run.measured"
            label="measured"
            density="compact"
            :disabled="!session.mayEdit"
            @update:model-value="v => edit.setRun(o, { measured: !!v })"
          />
        </span>
        <b class="fig">{{ said.loss(o.joint) }}</b>
        <span class="soft">{{ said.spare(o.joint) }}</span>
        <p v-for="f in said.atRun(o)" :key="f.key" class="joint" :class="f.severity">{{ t(f.title) }}</p>
      </li>
      <li class="part" :data-role="said.role(o.at)">
        <svg viewBox="0 0 100 24" preserveAspectRatio="none" aria-hidden="true">
          <path :d="i ? (i < rows.length - 1 ? 'M0 12H100' : 'M0 12H5') : 'M5 12H100'" stroke="var(--mv-ink)" stroke-width="3" />
        </svg>
        <i class="knot" aria-hidden="true" />
        <span class="role">{{ said.count(o) > 1 ? `${said.count(o)} × ` : '' }}{{ said.roleWord(o.at) }}</span>
        <MvChoice
          phrase
          :value="o.at.node.partId"
          :label="said.roleWord(o.at)"
          :choices="kit.optionsFor(o.at).map(p => ({ value: p.id, title: p.name }))"
          :disabled="!session.mayEdit"
          :save="v => edit.setPart(o, v)"
        />
        <span class="soft">{{ said.ports(o.at.part) }}</span>
        <b class="fig">{{ said.gain(o) }}</b>
        <span class="acts">
          <button type="button" class="plain" :data-test="`figures-${said.role(o.at)}`" @click="emit('open', o)">
            maker’s figures{{ o.at.node.own ? ' *' : '' }}
          </button>
          <button v-if="o.joint && session.mayEdit" type="button" class="plain" :disabled="doing" @click="edit.remove(o)">
            take out
          </button>
        </span>
        <p v-for="f in said.atPart(o)" :key="f.key" class="joint" :class="f.severity">{{ t(f.title) }}</p>
      </li>
    </template>
  </ol>
</template>

<style scoped>
.strip {
  list-style: none;
  display: flex;
  margin: 0;
  padding: 22px 20px 16px;
  overflow-x: auto;
  background: var(--mv-sky);
  border-bottom: 1px solid var(--mv-ink);
  min-height: 220px;
  flex: none;
}
li {
  position: relative;
  flex: 1;
  min-width: 130px;
  display: flex;
  flex-direction: column;
  align-items: start;
  gap: 4px;
  padding-right: 16px;
}
li.part {
  min-width: 170px;
}
svg {
  height: 24px;
  width: calc(100% + 16px);
  overflow: visible;
}
.knot {
  position: absolute;
  left: 4px;
  top: 4px;
  width: 16px;
  height: 16px;
  border-radius: 50%;
  background: var(--mv-ink);
}
.role {
  font-weight: 700;
}
.run .role {
  font-weight: 400;
}
.cut {
  display: flex;
  gap: 4px;
  align-items: baseline;
  flex-wrap: wrap;
}
.cut :deep(.v-checkbox) {
  flex: none;
  font-size: 13px;
  align-self: center;
}
b.fig {
  font-size: 16px;
  margin-top: auto;
}
.acts {
  display: flex;
  gap: 10px;
}
:deep(.v-select__selection-text) {
  white-space: normal;
  line-height: 1.25;
}
.soft,
.acts,
.joint {
  font-size: 12.5px;
}
@media (max-width: 900px) {
  .strip {
    flex-direction: column;
    padding: 12px 14px;
  }
  svg,
  .knot {
    display: none;
  }
  li {
    border-left: 3px solid var(--mv-ink);
    padding: 0 0 14px 14px;
  }
  li.part {
    border-left-width: 8px;
    padding-left: 9px;
  }
  b.fig {
    position: absolute;
    right: 0;
    top: 0;
  }
  .plain {
    min-height: 44px;
  }
}
</style>
