<script setup lang="ts">
/** The kitchen's sauces: search, open, cook, copy, rename, delete with undo, start a new one. */
import { useDebounceFn } from '@vueuse/core'
import { NButton, NDropdown, NInput, NModal, useMessage } from 'naive-ui'
import { computed, nextTick, onMounted, ref } from 'vue'
import { RouterLink, useRouter } from 'vue-router'
import { api, ask, type Schemas, type Sheet } from '@/api/client'
import { day, familyNames, millilitres, minutes } from '@/parts/format'
import ThicknessRibbon from '@/parts/ThicknessRibbon.vue'
import StartPicker from './StartPicker.vue'
import { begun } from '@/shell/document'
import { useHob } from '@/shell/hob'
import { onKey } from '@/shell/keys'
import { useList } from '@/shell/list'
import { useOffList } from '@/shell/offList'
import { useSession } from '@/shell/session'
import RenameDialog from './RenameDialog.vue'

const session = useSession()
const router = useRouter()
const hob = useHob()
const message = useMessage()
const offList = useOffList()
const sauces = ref<Schemas['SauceLine'][] | null>(null)
const any = ref(true)
const search = ref('')
const choosing = ref(false)
const searchBox = ref<InstanceType<typeof NInput> | null>(null)

const { trouble, load, tell } = useList(async () => {
  const found = await ask(api.GET('/api/sauces', { params: { query: { q: search.value } } }))
  sauces.value = found
  if (!search.value) any.value = found.length > 0
})
const loadSoon = useDebounceFn(load, 120)

const starts = ref<Sheet[]>([])
/** The starting points under their families, an empty sheet last. */
const kinds = computed(() =>
  Object.entries(familyNames)
    .map(([key, name]) => ({
      name,
      starts: starts.value
        .filter((start) => start.family === key)
        .map((start) => ({ key: start.name, name: start.name, words: start.cover?.text ?? '' })),
    }))
    .filter((kind) => kind.starts.length)
    .concat({ name: 'Your own', starts: [{ key: 'empty', name: 'From nothing', words: 'no steps yet' }] }),
)
onMounted(async () => {
  starts.value = await ask(api.GET('/api/work/starts')).catch(() => [])
})
function begin(kind: string): void {
  void router.push({ path: '/sauces/new', query: { start: kind } })
}
const unfinished = computed(() => begun('draft'))

const id = (sauce: Schemas['SauceLine']) => ({ params: { path: { sauce_id: sauce.id } } })
const cook = (sauce: Schemas['SauceLine']) =>
  tell(async () => {
    const batch = await ask(api.POST('/api/stove', { body: { sauce_id: sauce.id } }))
    void hob.look().catch(() => undefined)
    await router.push(`/stove/${batch.id}`)
  })
const copy = (sauce: Schemas['SauceLine']) =>
  tell(async () => {
    const made = await ask(api.POST('/api/sauces/{sauce_id}/copy', id(sauce)))
    message.success(`Copied as “${made.name}”.`)
  })
const remove = (sauce: Schemas['SauceLine']) =>
  tell(async () => {
    await ask(api.DELETE('/api/sauces/{sauce_id}', id(sauce)))
    offList(sauce.name, () => tell(() => ask(api.POST('/api/sauces/{sauce_id}/restore', id(sauce)))))
  })

const renaming = ref<Schemas['SauceLine'] | null>(null)

const actions = [
  { key: 'copy', label: 'Copy' },
  { key: 'rename', label: 'Rename' },
  { key: 'remove', label: 'Delete' },
]
function act(key: string, sauce: Schemas['SauceLine']): void {
  if (key === 'copy') void copy(sauce)
  if (key === 'rename') renaming.value = sauce
  if (key === 'remove') void remove(sauce)
}
onKey((key) => {
  if (key === '/') void nextTick(() => searchBox.value?.focus())
  else if (key === 'n') choosing.value = true
  else return false
  return true
})
</script>

<template>
  <div class="place">
    <header>
      <h1>Sauces</h1>
      <NInput
        v-if="any"
        ref="searchBox"
        v-model:value="search"
        class="search"
        clearable
        placeholder="Search by name or kind"
        :input-props="{ 'aria-label': 'Search' }"
        @update:value="loadSoon"
      />
      <NButton v-if="unfinished" @click="router.push('/sauces/new')">Go on with the new one</NButton>
      <NButton @click="router.push('/sauces/read')">Read a recipe</NButton>
      <NButton type="primary" @click="choosing = true">New sauce</NButton>
    </header>
    <p v-if="trouble" class="problem" role="alert">
      {{ trouble }} <NButton size="small" @click="load">Try again</NButton>
    </p>

    <section v-if="sauces && !any" class="empty">
      <h2>Start with a sauce</h2>
      <p>
        Say what it is for, how many and how thick; Kestrel Fog gives you amounts to weigh out, and shows the pot at
        every step before you cook it.
      </p>
      <StartPicker :kinds="kinds" @begin="begin" />
    </section>
    <p v-else-if="sauces && !sauces.length" class="quiet">
      Nothing by that name. <button class="plain link" @click="((search = ''), load())">Show all</button>
    </p>

    <ul v-if="sauces" class="list">
      <li v-for="sauce in sauces" :key="sauce.id" class="sheet">
        <RouterLink :to="`/sauces/${sauce.id}`" class="open">
          <span class="kind">{{ familyNames[sauce.family] ?? 'Sauce' }}</span>
          <h2>{{ sauce.name }}</h2>
          <span class="figures">
            <b>{{ session.gradeName(sauce.outcome.grade) || 'no grade' }}</b>
            <b>{{ millilitres(sauce.outcome.volume_ml) }}</b>
            <span>{{ minutes(sauce.outcome.minutes) }}</span>
          </span>
          <ThicknessRibbon slim :viscosity="sauce.outcome.viscosity_pa_s" />
          <span class="quiet small">version {{ sauce.version }}, {{ day(sauce.updated_at) }}</span>
        </RouterLink>
        <div class="do">
          <NButton type="primary" secondary @click="cook(sauce)">Cook</NButton>
          <NDropdown trigger="click" :options="actions" @select="(key: string) => act(key, sauce)">
            <NButton quaternary :aria-label="`More for ${sauce.name}`">•••</NButton>
          </NDropdown>
        </div>
      </li>
    </ul>

    <NModal
      v-model:show="choosing"
      preset="card"
      title="New sauce: start from"
      style="width: min(1040px, 96vw); max-height: 90vh"
      content-style="overflow: auto"
    >
      <StartPicker :kinds="kinds" @begin="begin" />
    </NModal>
    <RenameDialog :sauce="renaming" @close="renaming = null" @renamed="load" />
  </div>
</template>

<style scoped>
.place {
  padding: 16px 20px 24px;
  max-width: 1560px;
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 12px;
  margin-bottom: 14px;
}
h1 {
  flex: 1;
  font-size: 30px;
}
.search {
  width: min(320px, 100%);
}
.list {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 350px), 1fr));
  gap: 12px;
  margin: 0;
  padding: 0;
}
.list li {
  display: flex;
  flex-direction: column;
  list-style: none;
}
.open {
  flex: 1;
  display: flex;
  flex-direction: column;
  gap: 4px;
  padding: 12px 14px 8px;
  color: inherit;
  text-decoration: none;
  border-radius: 12px;
}
.open:hover h2 {
  color: var(--russet);
}
.kind {
  font-size: 14px;
  font-weight: 600;
  color: var(--ink2);
}
.list h2 {
  flex: 1;
  font-size: 20px;
}
.figures {
  display: flex;
  align-items: baseline;
  gap: 14px;
  font-size: 18px;
}
.small {
  font-size: 14px;
}
.do {
  display: flex;
  justify-content: space-between;
  padding: 0 14px 10px;
}
.empty {
  max-width: 1100px;
  padding: 12px 0 24px;
}
.empty p {
  margin: 8px 0 16px;
  font-size: 18px;
}
.link {
  color: var(--russet);
  text-decoration: underline;
}
</style>
