<script setup lang="ts">
/** One row of the larder, to correct or to add; a change says first which sauces move. */
import { useDebounceFn } from '@vueuse/core'
import { NButton, useMessage } from 'naive-ui'
import { computed, h, ref, watch } from 'vue'
import { api, ask, Refused, Taken, type Schemas } from '@/api/client'
import ChoiceField from '@/parts/ChoiceField.vue'
import Dialog from '@/parts/Dialog.vue'
import TextField from '@/parts/TextField.vue'
import WhatIsInIt from './WhatIsInIt.vue'
import { useForm } from '@/shell/form'
import { useSession } from '@/shell/session'
import FromPacket from './FromPacket.vue'
import { blank, groups } from './row'

/** The key of a row to edit, '' for a new one, null: closed. */
const props = defineProps<{ editing: string | null }>()
const emit = defineEmits<{ close: [] }>()
const session = useSession()
const message = useMessage()

const row = ref<Record<string, string>>({})
const loaded = ref<Schemas['RowOut'] | null>(null)
const { problems, trouble, clear, problemAt } = useForm()
const moved = ref<Schemas['Moved'][] | null>(null)
const changed = computed(() => JSON.stringify(row.value) !== JSON.stringify(loaded.value?.row ?? {}))

watch(
  () => props.editing,
  async (key) => {
    clear()
    moved.value = null
    loaded.value = null
    if (key === null) return
    if (key === '') {
      row.value = { ...blank }
      return
    }
    try {
      loaded.value = await ask(api.GET('/api/larder/ingredients/{key}', { params: { path: { key } } }))
      row.value = { ...loaded.value.row }
    } catch (error) {
      trouble.value = (error as Error).message
    }
  },
)
/** What does not add up is told at the last figure, which takes the rest. */
const wrong = (key: string) => problemAt(key) ?? (key === 'insoluble' ? problemAt('composition') : null)
const set = (key: string, text: string) => (row.value = { ...row.value, [key]: text })
/** What is bought is no figure of the packet: a price typed already stays. */
const fromPacket = (found: Record<string, string>) =>
  (row.value = { ...found, price_per_kg: row.value.price_per_kg ?? '', pack_g: row.value.pack_g ?? '' })
const options = (of: Record<string, string> | undefined) =>
  Object.entries(of ?? {}).map(([value, label]) => ({ value, label }))

/** Which sauces would move; asked while typing, so that saving is no surprise. */
const foresee = useDebounceFn(async () => {
  if (!changed.value || props.editing === null) return
  try {
    const typed = { ...row.value }
    const found = await ask(api.POST('/api/work/larder-moves', { body: { rows: [typed] } }))
    clear()
    moved.value = found
  } catch (error) {
    if (error instanceof Refused) problems.value = error.problems
    else trouble.value = (error as Error).message
  }
}, 250)
watch(row, () => changed.value && loaded.value !== undefined && void foresee(), { deep: true })

async function save(): Promise<void> {
  try {
    await ask(api.PUT('/api/larder/ingredients', { body: { row: row.value, revision: loaded.value?.revision ?? 0 } }))
    const before = loaded.value
    await session.reload()
    const said = message.success(
      () =>
        h('span', [
          `${row.value.name} is kept. `,
          before ? h(NButton, { size: 'small', onClick: () => void undo(before, said) }, () => 'Undo') : null,
        ]),
      { duration: 10_000, closable: true },
    )
    emit('close')
  } catch (error) {
    if (error instanceof Refused) problems.value = error.problems
    else if (error instanceof Taken) {
      const theirs = error.body as Schemas['RowTaken']
      trouble.value = `${theirs.message} Theirs is shown beside yours; save again to put yours in its place.`
      loaded.value = { row: theirs.row, shipped: loaded.value?.shipped ?? null, revision: theirs.revision }
    } else trouble.value = (error as Error).message
  }
}
async function undo(before: Schemas['RowOut'], said: { destroy: () => void }): Promise<void> {
  said.destroy()
  const key = before.row.key!
  try {
    if (before.revision === 0) await ask(api.DELETE('/api/larder/ingredients/{key}', { params: { path: { key } } }))
    else {
      const there = await ask(api.GET('/api/larder/ingredients/{key}', { params: { path: { key } } }))
      await ask(api.PUT('/api/larder/ingredients', { body: { row: before.row, revision: there.revision } }))
    }
    await session.reload()
  } catch (error) {
    message.error((error as Error).message)
  }
}
async function shippedAgain(): Promise<void> {
  const key = loaded.value!.row.key!
  try {
    await ask(api.DELETE('/api/larder/ingredients/{key}', { params: { path: { key } } }))
    await session.reload()
    message.info(
      loaded.value!.shipped
        ? `${loaded.value!.row.name} is as it came.`
        : `${loaded.value!.row.name} is no longer offered.`,
    )
    emit('close')
  } catch (error) {
    trouble.value = (error as Error).message
  }
}
const differs = (key: string) => loaded.value && (loaded.value.row[key] ?? '') !== (row.value[key] ?? '')
</script>

<template>
  <Dialog
    :show="editing !== null"
    :title="editing === '' ? 'A new ingredient' : (loaded?.row.name ?? '…')"
    width="980px"
    @update:show="(show: boolean) => show || emit('close')"
  >
    <form @submit.prevent="save">
      <div class="top">
        <TextField :value="row.name" label="Name" :problem="wrong('name')" @change="set('name', $event)" />
        <TextField
          v-if="editing === ''"
          :value="row.key"
          label="Key, for sheets"
          name="Key"
          placeholder="cheese-from-the-ridge"
          :problem="wrong('key')"
          @change="set('key', $event)"
        />
        <ChoiceField
          :value="row.role"
          label="What it is"
          :options="options(session.catalogue?.roles)"
          @change="set('role', $event)"
        />
        <ChoiceField
          :value="row.origin"
          label="Where the figures come from"
          :options="options(session.catalogue?.origins)"
          @change="set('origin', $event)"
        />
        <TextField
          class="short"
          :value="row.spread_pct"
          label="Spread, ± %"
          name="Spread"
          numeric
          :problem="wrong('spread_pct')"
          @change="set('spread_pct', $event)"
        />
      </div>
      <FromPacket v-if="editing === ''" :name="row.name ?? ''" :role="row.role ?? ''" @row="fromPacket" />
      <details :open="editing !== ''">
        <summary>{{ editing === '' ? 'All figures, to look over or to give by hand' : 'All figures' }}</summary>
        <fieldset v-for="group in groups" :key="group.name">
          <legend>{{ group.name }}</legend>
          <TextField
            v-for="f in group.fields"
            :key="f.key"
            :class="{ differs: differs(f.key) }"
            :value="row[f.key]"
            :label="f.label"
            :unit="f.unit"
            numeric
            :problem="wrong(f.key)"
            @change="set(f.key, $event)"
          >
            <span v-if="differs(f.key)" class="quiet was">was {{ loaded!.row[f.key] || 'none' }}</span>
          </TextField>
          <ChoiceField
            v-if="group.fields.some((f) => f.key === 'body')"
            class="wide"
            :value="row.body_origin ?? ''"
            label="Where that comes from"
            name="Where the body comes from"
            :options="options(session.catalogue?.body_origins)"
            @change="set('body_origin', $event)"
          />
        </fieldset>
      </details>
      <WhatIsInIt :row="row" :wrong="wrong" @change="set" />
      <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
      <section v-if="moved && changed" class="moved good-news" aria-live="polite">
        <p v-if="!moved.length"><b>No sauce of yours moves.</b></p>
        <template v-else>
          <p>
            <b>{{ moved.length }} {{ moved.length === 1 ? 'sauce moves' : 'sauces move' }}</b> with it; saved versions
            keep the figures they were saved with.
          </p>
          <ul>
            <li v-for="one in moved" :key="one.sauce_id">
              <b>{{ one.name }}</b>: {{ one.changes.join(' · ') }}
            </li>
          </ul>
        </template>
      </section>
      <div class="dialog-buttons">
        <NButton v-if="loaded && loaded.revision > 0" @click="shippedAgain">{{
          loaded.shipped ? 'As it came' : 'No longer offer it'
        }}</NButton>
        <span class="rest" />
        <NButton @click="emit('close')">Leave it</NButton>
        <NButton type="primary" attr-type="submit" :disabled="!changed">Keep it</NButton>
      </div>
    </form>
  </Dialog>
</template>

<style scoped>
form {
  display: flex;
  flex-direction: column;
  gap: 10px;
}
.top {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}
.top label {
  flex: 1 1 180px;
}
.top .short {
  flex: 0 1 100px;
}
fieldset {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(136px, 1fr));
  align-items: end;
  gap: 4px 14px;
}
summary {
  min-height: 44px;
  padding: 10px 0;
  font-weight: 700;
  cursor: pointer;
}
.wide {
  grid-column: span 3;
}
.differs :deep(input) {
  border-color: var(--russet);
  background: var(--russet-wash);
}
.was {
  font-size: 14px;
}
.moved ul {
  max-height: 150px;
  margin: 4px 0 0;
  padding-left: 18px;
  overflow: auto;
}
.rest {
  flex: 1;
}
</style>
