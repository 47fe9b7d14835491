<script setup lang="ts">
/** The kitchen's sauces: search, open, cook, copy, rename, delete with undo, start a new one. */
import { useDebounceFn, useStorage } from '@vueuse/core'
import { NButton, NDropdown, NInput, NSelect, useMessage } from 'naive-ui'
import { computed, nextTick, onMounted, ref } from 'vue'
import { RouterLink, useRouter } from 'vue-router'
import { api, ask, type Schemas, type Sheet } from '@/api/client'
import Dialog from '@/parts/Dialog.vue'
import { day, familyNames, millilitres, minutes } from '@/parts/format'
import ThicknessRibbon from '@/parts/ThicknessRibbon.vue'
import StartPicker from './StartPicker.vue'
import { begun } from '@/shell/document'
import { useHob } from '@/shell/hob'
import { onKey } from '@/shell/keys'
import { useList } from '@/shell/list'
import { useOffList } from '@/shell/offList'
import { usePages } from '@/shell/pages'
import { useSession } from '@/shell/session'
import RenameDialog from './RenameDialog.vue'
import TagsDialog from './TagsDialog.vue'

const session = useSession()
const router = useRouter()
const hob = useHob()
const message = useMessage()
const offList = useOffList()
const any = ref(true)
const tag = ref('')
const favourites = ref(false)
const tags = ref<string[]>([])
/** In which order, remembered on this device. */
const sort = useStorage<'name' | 'cooked' | 'changed'>('kestrel.sauces.sort', 'name')
const sorts = [
  { value: 'name', label: 'By name' },
  { value: 'cooked', label: 'Last cooked first' },
  { value: 'changed', label: 'Last changed first' },
]
const picked = computed(() => Boolean(search.value || tag.value || favourites.value))
const {
  rows: sauces,
  total,
  end,
  left,
  load: loadPages,
  more,
} = usePages((span) =>
  ask(
    api.GET('/api/sauces', {
      params: {
        query: { ...span, q: search.value, tag: tag.value, favourites: favourites.value, sort: sort.value },
      },
    }),
  ),
)
const search = ref('')
const choosing = ref(false)
const searchBox = ref<InstanceType<typeof NInput> | null>(null)

const { trouble, load, tell } = useList(async () => {
  await loadPages()
  if (!picked.value) any.value = total.value > 0
  tags.value = await ask(api.GET('/api/sauces/tags'))
})
/** What is searched for has changed: from the top again. */
const anew = () => loadPages(true).catch(() => load())
const loadSoon = useDebounceFn(anew, 120)
function show(what: { tag?: string; favourites?: boolean }): void {
  tag.value = what.tag ?? ''
  favourites.value = what.favourites ?? false
  void anew()
}
const mark = (sauce: Schemas['SauceLine'], change: Partial<Schemas['MarksIn']>) =>
  tell(() =>
    ask(
      api.PUT('/api/sauces/{sauce_id}/marks', {
        ...id(sauce),
        body: { favourite: sauce.favourite, tags: sauce.tags, ...change },
      }),
    ),
  )
const tagging = ref<Schemas['SauceLine'] | null>(null)

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
  { key: 'tags', label: 'Tags…' },
  { key: 'rename', label: 'Rename' },
  { key: 'remove', label: 'Delete' },
]
function act(key: string, sauce: Schemas['SauceLine']): void {
  if (key === 'copy') void copy(sauce)
  if (key === 'tags') tagging.value = sauce
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
        placeholder="Search by name, kind or tag"
        :input-props="{ 'aria-label': 'Search' }"
        @update:value="loadSoon"
      />
      <NButton v-if="unfinished" @click="router.push('/sauces/new')">Go on with the new one</NButton>
      <NButton @click="router.push('/sauces/read')">Read a recipe</NButton>
      <NButton type="primary" @click="choosing = true">New sauce</NButton>
    </header>
    <div v-if="any" class="by">
      <button class="chip" :aria-pressed="!tag && !favourites" @click="show({})">All</button>
      <button class="chip" :aria-pressed="favourites" @click="show({ favourites: true })">★ Favourites</button>
      <button v-for="one in tags" :key="one" class="chip" :aria-pressed="tag === one" @click="show({ tag: one })">
        {{ one }}
      </button>
      <span class="count quiet" role="status">{{ total }} {{ total === 1 ? 'sauce' : 'sauces' }}</span>
      <NSelect
        v-model:value="sort"
        class="sort"
        :options="sorts"
        :virtual-scroll="false"
        aria-label="Order"
        @update:value="anew"
      />
    </div>
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
      Nothing {{ search ? 'by that name' : favourites ? 'starred yet: press a star' : 'with that tag' }}.
      <button class="plain link" @click="((search = ''), show({}))">Show all</button>
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
          <span class="quiet small"
            >version {{ sauce.version }}, {{ day(sauce.updated_at)
            }}<template v-if="sauce.cooked_at"> · cooked {{ day(sauce.cooked_at) }}</template></span
          >
          <span v-if="sauce.tags.length" class="tags"
            ><span v-for="one in sauce.tags" :key="one">{{ one }}</span></span
          >
        </RouterLink>
        <div class="do">
          <NButton type="primary" secondary @click="cook(sauce)">Cook</NButton>
          <NButton
            quaternary
            class="star"
            :aria-pressed="sauce.favourite"
            :aria-label="`Favourite: ${sauce.name}`"
            @click="mark(sauce, { favourite: !sauce.favourite })"
            >{{ sauce.favourite ? '★' : '☆' }}</NButton
          >
          <NDropdown trigger="click" :options="actions" @select="(key: string) => act(key, sauce)">
            <NButton quaternary :aria-label="`More for ${sauce.name}`">•••</NButton>
          </NDropdown>
        </div>
      </li>
    </ul>
    <p v-if="left > 0" ref="end" class="rest">
      <NButton @click="more">Show more: {{ left }} to come</NButton>
    </p>

    <Dialog v-model:show="choosing" title="New sauce: start from" width="1040px">
      <StartPicker :kinds="kinds" @begin="begin" />
    </Dialog>
    <RenameDialog :sauce="renaming" @close="renaming = null" @renamed="load" />
    <TagsDialog :sauce="tagging" :known="tags" @close="tagging = null" @tagged="mark(tagging!, { tags: $event })" />
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
.by {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  margin-bottom: 14px;
}
.count {
  flex: 1;
}
.sort {
  width: 200px;
}
.tags {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
.tags span {
  padding: 0 8px;
  border-radius: 10px;
  background: var(--fog2);
  font-size: 14px;
}
.star {
  margin-left: auto;
  font-size: 22px;
}
.rest {
  padding: 16px 0;
  text-align: center;
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
  /* Of two thousand only those near the window are laid out. */
  content-visibility: auto;
  contain-intrinsic-size: auto 226px;
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
