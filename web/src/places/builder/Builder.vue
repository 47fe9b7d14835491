<script setup lang="ts">
/** The builder: what it is for, the sauce as steps, the pot as it is now. */
import { useEventListener, useTitle } from '@vueuse/core'
import { NButton, NDropdown, NModal, useMessage } from 'naive-ui'
import { computed, nextTick, onMounted, ref } from 'vue'
import { onBeforeRouteLeave, useRouter } from 'vue-router'
import { api, ask, Refused, type Schemas, type Sheet } from '@/api/client'
import { saveFile } from '@/parts/file'
import { minutes } from '@/parts/format'
import { useHob } from '@/shell/hob'
import { onKey } from '@/shell/keys'
import { useSession } from '@/shell/session'
import ConflictDialog from './ConflictDialog.vue'
import FixIt from '@/parts/FixIt.vue'
import { useDraft, type LooseSheet } from './draft'
import ForWhat from './ForWhat.vue'
import PotNow from './PotNow.vue'
import StepCard from './StepCard.vue'
import PickSauce from './PickSauce.vue'
import SwapDialog from './SwapDialog.vue'
import { common, formOf, freshSalt, menu } from './steps'
import VersionsDialog from './VersionsDialog.vue'
import WhatIf from './WhatIf.vue'

const props = defineProps<{ id?: number; start?: string }>()
const router = useRouter()
const message = useMessage()
const hob = useHob()
const session = useSession()
const draft = useDraft()
const { sheet, worked, problems, trouble, stored, dirty, conflict, restored, changes, past, future } = draft
const chosen = ref<number | null>(null)
const tab = ref<'what' | 'steps' | 'pot'>('steps')
const showVersions = ref(false)
const picking = ref(false)
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
const nameProblem = computed(() => draft.problemAt('name'))
const status = computed(() => {
  if (problems.value.length) return 'one entry needs mending; the last good picture stands'
  if (!stored.value) return 'not saved yet'
  return dirty.value ? `changed since version ${stored.value.base}` : `saved, version ${stored.value.base}`
})

function choose(index: number | null): void {
  chosen.value = index
}
function move(index: number, by: number): void {
  const to = index + by
  void draft.edit((s) => s.steps.splice(to, 0, ...s.steps.splice(index, 1)))
  chosen.value = to
}
function remove(index: number): void {
  void draft.edit((s) => s.steps.splice(index, 1))
  chosen.value = null
  message.info('Step taken out. Ctrl Z brings it back.')
}
function insert(key: string): void {
  if (key === 'use') picking.value = true
  else put(key === 'salt' ? freshSalt() : formOf(key).fresh())
}
function put(step: LooseSheet): void {
  const at = chosen.value === null ? steps.value.length : chosen.value + 1
  void draft.edit((s) => s.steps.splice(at, 0, step))
  chosen.value = at
  void nextTick(() => document.querySelector('.step.chosen')?.scrollIntoView({ block: 'nearest' }))
}

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
async function download(form: string): Promise<void> {
  try {
    const made = await ask(api.POST('/api/work/write', { body: { sheet: worked.value!.sheet as LooseSheet, form } }))
    saveFile(String(sheet.value.name), made)
  } catch (error) {
    message.error((error as Error).message)
  }
}
const more = computed(() => [
  { key: 'versions', label: 'Versions…', disabled: !stored.value },
  { key: 'discard', label: 'Throw unsaved changes away', disabled: !stored.value || !dirty.value },
  {
    key: 'download',
    label: 'Download as',
    children: [
      { key: 'sheet', label: 'Sheet (JSON, everything)' },
      { key: 'json-ld', label: 'Recipe (JSON-LD)' },
      { key: 'markdown', label: 'Markdown' },
    ],
  },
  {
    key: 'card',
    label: 'Card to print',
    children: ['A5', 'A4'].map((size) => ({ key: size, label: size, disabled: !stored.value || dirty.value })),
  },
])
function act(key: string): void {
  if (key === 'versions') showVersions.value = true
  else if (key === 'discard') void draft.discard()
  else if (key === 'A5' || key === 'A4') void router.push(`/sauces/${stored.value?.id}/card?size=${key}`)
  else void download(key)
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

useEventListener(window, 'keydown', (event: KeyboardEvent) => {
  if (!(event.ctrlKey || event.metaKey)) return
  const key = event.key.toLowerCase()
  if (key === 's') void save()
  else if (key === 'z' && event.shiftKey) draft.redo()
  else if (key === 'z') draft.undo()
  else if (key === 'y') draft.redo()
  else return
  event.preventDefault()
})
onKey((key) => {
  const last = steps.value.length - 1
  if (last < 0) return false
  if (key === 'ArrowDown') choose(chosen.value === null ? 0 : Math.min(last, chosen.value + 1))
  else if (key === 'ArrowUp') choose(chosen.value === null ? last : Math.max(0, chosen.value - 1))
  else if (key === 'Escape') choose(null)
  else return false
  void nextTick(() => document.querySelector('.step.chosen')?.scrollIntoView({ block: 'nearest' }))
  return true
})
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
    <header class="head">
      <div class="title">
        <input
          class="name"
          :value="sheet.name"
          aria-label="Name of the sauce"
          maxlength="120"
          @input="draft.edit((s) => (s.name = ($event.target as HTMLInputElement).value), 'name')"
        />
        <span v-if="nameProblem" class="problem">The name {{ nameProblem.message }}. {{ nameProblem.remedy }}.</span>
        <span v-else class="quiet status">
          {{ status }}<template v-if="restored && dirty"> · unsaved changes were brought back</template>
        </span>
      </div>
      <div class="buttons no-print">
        <NButton :disabled="!past.length" aria-label="Undo" title="Undo (Ctrl Z)" @click="draft.undo">↶</NButton>
        <NButton :disabled="!future.length" aria-label="Redo" title="Redo (Ctrl Shift Z)" @click="draft.redo"
          >↷</NButton
        >
        <NButton :disabled="!steps.length" @click="whatIf = true">What if</NButton>
        <NButton :disabled="!steps.length" @click="fixing = true">Fix it</NButton>
        <NDropdown trigger="click" :options="more" @select="act">
          <NButton aria-label="More">More</NButton>
        </NDropdown>
        <NButton :loading="saving" :disabled="!dirty" @click="save()">Save</NButton>
        <NButton type="primary" :disabled="!steps.length || problems.length > 0" @click="cook">Cook it</NButton>
      </div>
    </header>
    <p v-if="trouble" class="problem banner" role="alert">{{ trouble }}</p>

    <div class="tabs no-print" role="tablist" aria-label="Parts of the builder">
      <button role="tab" :aria-selected="tab === 'what'" @click="tab = 'what'">For what</button>
      <button role="tab" :aria-selected="tab === 'steps'" @click="tab = 'steps'">Steps</button>
      <button role="tab" :aria-selected="tab === 'pot'" @click="tab = 'pot'">
        The pot<template v-if="worked.final.grade">: {{ session.gradeName(worked.final.grade) }}</template>
      </button>
    </div>

    <div class="left"><ForWhat :draft="draft" /></div>

    <section class="middle" aria-label="The sauce, step by step">
      <p class="sum">
        <b>{{ steps.length }}</b> steps, <b>{{ minutes(worked.final.minutes) }}</b> at the stove
      </p>
      <div v-if="changes.length" class="changes" role="status">
        <p>
          <b>{{ changes[0] }}</b>
        </p>
        <ul>
          <li v-for="text in changes.slice(1)" :key="text">{{ text }}</li>
        </ul>
        <NButton size="small" @click="changes = []">Seen</NButton>
        <NButton size="small" :disabled="!past.length" @click="(draft.undo(), (changes = []))">Back to before</NButton>
      </div>
      <div v-if="!steps.length" class="empty">
        <h3>What goes in first?</h3>
        <p>A roux, or the wine and stock of a reduction. Each step shows its pot at once.</p>
      </div>
      <ol>
        <StepCard
          v-for="(step, i) in steps"
          :key="i"
          :draft="draft"
          :index="i"
          :step="step"
          :card="worked.cards[i]"
          :state="worked.steps[i]"
          :along="worked.along.find((one) => one.step === i)"
          :chosen="chosen === i"
          :last="i === steps.length - 1"
          @choose="choose(i)"
          @missing="missing = $event"
          @move="move(i, $event)"
          @remove="remove(i)"
        />
      </ol>
      <div class="add no-print" aria-label="Add a step">
        <span class="label">{{ chosen === null ? 'Then' : `After step ${chosen + 1}` }}</span>
        <NButton v-for="op in common" :key="op" @click="insert(op)">{{ formOf(op).name }}</NButton>
        <NButton @click="insert('salt')">Salt to taste</NButton>
        <NDropdown trigger="click" :options="menu" scrollable style="max-height: 60vh" @select="insert">
          <NButton>Other steps…</NButton>
        </NDropdown>
      </div>
    </section>

    <div class="right">
      <PotNow
        :worked="worked"
        :chosen="chosen"
        :stale="problems.length > 0"
        @whole="choose(null)"
        @to-target="draft.aim()"
      />
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
    <NModal
      v-model:show="fixing"
      preset="card"
      :title="chosen === null ? 'Fix it: the finished sauce' : `Fix it: after step ${chosen + 1}`"
      style="width: min(860px, 98vw)"
    >
      <FixIt :sheet="worked.sheet" :at="fixAt" take="Put it into the sauce" @take="mend" />
    </NModal>
    <PickSauce v-model:show="picking" :not="stored?.id" @pick="put" />
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
.builder {
  display: grid;
  height: 100%;
  grid-template: 'head head head' auto 'banner banner banner' auto 'left middle right' 1fr / 268px minmax(0, 1fr) 352px;
}
.head {
  grid-area: head;
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 8px 14px;
  border-bottom: 1px solid var(--fog2);
  background: var(--fog0);
}
.banner {
  grid-area: banner;
  padding: 8px 16px;
  background: #fbeceb;
}
.title {
  flex: 1;
  min-width: 0;
}
.name {
  width: 100%;
  min-height: 36px;
  padding: 0 6px;
  border: 1px solid transparent;
  border-radius: 6px;
  background: transparent;
  color: var(--ink);
  font: 600 25px/1.15 var(--display);
  text-overflow: ellipsis;
}
.name:hover,
.name:focus {
  background: var(--white);
  border-color: var(--fog3);
}
.status {
  padding-left: 7px;
  font-size: 14px;
}
.title .problem {
  padding-left: 7px;
}
.buttons {
  display: flex;
  gap: 8px;
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
.sum {
  padding: 0 4px 4px;
  color: var(--ink2);
}
ol {
  display: flex;
  flex-direction: column;
  gap: 4px;
  margin: 0;
  padding: 0;
}
.changes {
  margin-bottom: 8px;
  padding: 10px 14px;
  border-left: 5px solid var(--leaf);
  border-radius: 0 10px 10px 0;
  background: var(--leaf-wash);
}
.changes ul {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 22px;
  margin: 4px 0 8px;
  padding: 0;
  list-style: none;
}
.empty {
  padding: 24px;
  border: 2px dashed var(--fog3);
  border-radius: 12px;
}
.add {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  padding: 12px 4px;
}
.lost {
  padding: 32px;
}
@media (min-width: 1600px) {
  .builder {
    grid-template-columns: 340px minmax(0, 1fr) 480px;
  }
  .middle > * {
    max-width: 860px;
  }
  .right :deep(.pictures) {
    height: 230px;
    grid-template-columns: 140px 1fr;
  }
}
@media (max-width: 1000px) {
  .builder {
    display: block;
    height: auto;
  }
  .head {
    flex-wrap: wrap;
  }
  .title {
    flex-basis: 100%;
  }
  .buttons {
    flex-wrap: wrap;
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
