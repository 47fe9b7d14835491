<script setup lang="ts">
/** The builder: what it is for, the sauce as steps, the pot as it is now. */
import { useTitle } from '@vueuse/core'
import { NButton, useMessage } from 'naive-ui'
import { computed, nextTick, onMounted, ref } from 'vue'
import { onBeforeRouteLeave, useRoute, useRouter } from 'vue-router'
import { api, ask, Refused, type Schemas, type Sheet } from '@/api/client'
import Dialog from '@/parts/Dialog.vue'
import { useHob } from '@/shell/hob'
import { onEditKeys, onKey } from '@/shell/keys'
import { useSession } from '@/shell/session'
import FixIt from '@/parts/FixIt.vue'
import { vChoices } from '@/parts/choices'
import BuilderHead from './BuilderHead.vue'
import ConflictDialog from './ConflictDialog.vue'
import { useDraft } from './draft'
import ForWhat from './ForWhat.vue'
import HowSure from './HowSure.vue'
import PotNow from './PotNow.vue'
import StepList from './StepList.vue'
import SwapDialog from './SwapDialog.vue'
import VersionsDialog from './VersionsDialog.vue'
import WhatIf from './WhatIf.vue'

const props = defineProps<{ id?: number; start?: string }>()
const router = useRouter()
const message = useMessage()
const hob = useHob()
const session = useSession()
const draft = useDraft()
const { sheet, worked, problems, trouble, stored, dirty, conflict, changes } = draft
const chosen = ref<number | null>(null)
const tab = ref<'what' | 'steps' | 'pot'>('steps')
const showVersions = ref(false)
const lost = ref('')
const saving = ref(false)
useTitle(computed(() => (sheet.value.name ? `${sheet.value.name} · Kestrel Fog` : 'Kestrel Fog')))

onMounted(async () => {
  try {
    if (props.id) return await draft.open(props.id)
    const starts = await ask(api.GET('/api/work/starts'))
    const first = starts.find((s) => s.name === props.start)
    const blank = { format: 'kestrel-fog/sauce', version: 1, name: 'New sauce', method: {}, target: {}, steps: [] }
    await draft.start(first ?? (blank as unknown as Sheet), Boolean(props.start))
    if (props.start) void router.replace('/sauces/new')
  } catch (error) {
    lost.value = (error as Error).message
  }
})

const steps = computed(() => (sheet.value.steps ?? []) as Record<string, unknown>[])

async function save(over = false): Promise<boolean> {
  saving.value = true
  const wasNew = !stored.value
  const done = await draft.save(over)
  saving.value = false
  if (!done) {
    if (problems.value.length) message.warning('Not saved: mend the entry marked first.')
    return false
  }
  message.success(`Saved as version ${done.base}.`)
  if (wasNew) await router.replace(`/sauces/${done.id}`)
  return true
}
async function saveAsNew(): Promise<void> {
  const done = await draft.saveAsNew()
  if (done) await router.push(`/sauces/${done.id}`)
}
async function cook(): Promise<void> {
  if (dirty.value && !(await save())) return
  if (!stored.value) return
  try {
    const batch = await ask(api.POST('/api/stove', { body: { sauce_id: stored.value.id, version: stored.value.base } }))
    void hob.look().catch(() => undefined)
    await router.push(`/stove/${batch.id}`)
  } catch (error) {
    message.error(error instanceof Refused ? error.message : (error as Error).message)
  }
}

const whatIf = ref(false)
const missing = ref<{ key: string; name: string } | null>(null)
const fixing = ref(false)
const fixAt = computed(() => chosen.value ?? steps.value.length - 1)
function take(next: Sheet, words: string[]): void {
  void draft.edit((s) => Object.assign(s, JSON.parse(JSON.stringify(next))))
  if (words.length) changes.value = words
}
function mend(remedy: Schemas['Remedy']): void {
  void draft.edit((s) => s.steps.splice(fixAt.value + 1, 0, ...remedy.steps))
  fixing.value = false
  message.info('Put in as steps. Ctrl Z takes them out again.')
}

/** The first sauce of a fresh kitchen: it is said what is seen. */
const firstLook = ref(useRoute().query.first === '1')
/** To the first amount, where its part is in front. */
async function toAmounts(): Promise<void> {
  tab.value = 'steps'
  await nextTick()
  document.querySelector<HTMLInputElement>('.middle input[data-amount]')?.focus()
}
onKey((key) => {
  if (key !== 'a') return false
  void toAmounts()
  return true
})
onEditKeys({ save: () => void save(), undo: draft.undo, redo: draft.redo })
// Unsaved work is kept on this machine, so leaving needs no question, only a word.
onBeforeRouteLeave(() => {
  if (dirty.value && stored.value) message.info('Unsaved changes are kept here until you come back.')
})
</script>

<template>
  <div v-if="lost" class="lost">
    <h1>This sauce cannot be opened</h1>
    <p>{{ lost }}</p>
    <NButton @click="router.push('/sauces')">Back to the sauces</NButton>
  </div>
  <div v-else-if="worked" class="builder" :class="`tab-${tab}`">
    <a class="skip" href="#amounts" @click.prevent="toAmounts">To the amounts</a>
    <BuilderHead
      class="head"
      :draft="draft"
      :saving="saving"
      @what-if="whatIf = true"
      @fix="fixing = true"
      @versions="showVersions = true"
      @save="save()"
      @cook="cook"
    />
    <div v-if="firstLook" class="banner first" role="status">
      <p>
        <b>A white sauce, worked through.</b> Left: what it is for and how thick. Middle: the steps; type over an amount
        and watch. Right: the pot as it will be, before you cook it. Nothing is kept until you save.
      </p>
      <NButton size="small" @click="firstLook = false">I see</NButton>
    </div>
    <p v-if="trouble" class="problem banner" role="alert">{{ trouble }}</p>

    <div v-choices class="tabs no-print" role="tablist" aria-label="Parts of the builder">
      <button role="tab" :aria-selected="tab === 'what'" @click="tab = 'what'">For what</button>
      <button role="tab" :aria-selected="tab === 'steps'" @click="tab = 'steps'">Steps</button>
      <button role="tab" :aria-selected="tab === 'pot'" @click="tab = 'pot'">
        The pot<template v-if="worked.final.grade">: {{ session.gradeName(worked.final.grade) }}</template>
      </button>
    </div>

    <div class="left"><ForWhat :draft="draft" /></div>

    <div class="middle"><StepList v-model:chosen="chosen" :draft="draft" @missing="missing = $event" /></div>

    <div class="right">
      <PotNow
        :worked="worked"
        :chosen="chosen"
        :stale="problems.length > 0"
        @whole="chosen = null"
        @to-target="draft.aim()"
        @by-the-sum="draft.edit((s) => (s.strength = null))"
      >
        <template #sure><HowSure :sheet="worked.sheet" @take="take" /></template>
      </PotNow>
    </div>

    <ConflictDialog
      :conflict="conflict"
      @over="save(true)"
      @theirs="draft.takeTheirs()"
      @copy="saveAsNew"
      @close="conflict = null"
    />
    <WhatIf v-model:show="whatIf" :sheet="worked.sheet" @keep="take($event, [])" />
    <SwapDialog :sheet="worked.sheet" :missing="missing" @take="take" @close="missing = null" />
    <Dialog
      v-model:show="fixing"
      :title="chosen === null ? 'Fix it: the finished sauce' : `Fix it: after step ${chosen + 1}`"
      width="860px"
    >
      <FixIt :sheet="worked.sheet" :at="fixAt" take="Put it into the sauce" @take="mend" />
    </Dialog>
    <VersionsDialog
      v-if="stored"
      v-model:show="showVersions"
      :sauce-id="stored.id"
      :version="stored.base"
      @open="(old) => draft.edit((s) => Object.assign(s, JSON.parse(JSON.stringify(old))))"
    />
  </div>
  <p v-else class="lost quiet">Setting out the pans…</p>
</template>

<style scoped>
/* No trouble: it only looks like the place for one. */
.banner.first {
  display: flex;
  gap: 12px;
  align-items: center;
  padding: 8px 14px;
  border-left: 5px solid var(--russet);
  background: var(--white);
}
.banner.first p {
  flex: 1;
}
.builder {
  display: grid;
  height: 100%;
  grid-template: 'head head head' auto 'banner banner banner' auto 'left middle right' 1fr / 268px minmax(0, 1fr) 352px;
}
.head {
  grid-area: head;
}
.banner {
  grid-area: banner;
  padding: 8px 16px;
  background: var(--danger-wash);
}
.tabs {
  display: none;
}
.left,
.middle,
.right {
  overflow: auto;
  padding: 12px;
}
.left {
  grid-area: left;
  padding-right: 0;
}
.middle {
  grid-area: middle;
}
.right {
  grid-area: right;
  background: var(--white);
  border-left: 1px solid var(--fog2);
}
.lost {
  padding: 32px;
}
@media (min-width: 1600px) {
  .builder {
    grid-template-columns: 340px minmax(0, 1fr) 480px;
  }
  .middle > section > :deep(*) {
    max-width: 860px;
  }
  .right :deep(.pictures) {
    height: 230px;
    grid-template-columns: 140px 1fr;
  }
}
@media (max-width: 1000px) {
  :global(main:has(> .builder)) {
    scroll-padding-top: 56px;
  }
  .builder {
    display: block;
    height: auto;
  }
  .tabs {
    position: sticky;
    top: 0;
    z-index: 3;
    display: flex;
    background: var(--fog1);
    border-bottom: 1px solid var(--fog3);
  }
  .tabs button {
    flex: 1;
    min-height: 48px;
    border: 0;
    border-bottom: 4px solid transparent;
    background: none;
    font-weight: 700;
  }
  .tabs [aria-selected='true'] {
    border-color: var(--russet);
  }
  .left,
  .middle,
  .right {
    display: none;
    padding: 12px;
    border: 0;
  }
  .tab-what .left,
  .tab-steps .middle,
  .tab-pot .right {
    display: block;
  }
}
</style>
