<script setup lang="ts">
/**
 * What is wrong, and every way to mend it, with its price. For a sheet after one of its steps, as
 * predicted or as it was found; for a pot on the stove as it is now, asked anew with every `revision` of
 * it; or for a pot nobody has seen, told in `seen`.
 */
import { useDebounceFn } from '@vueuse/core'
import { NButton, NSelect } from 'naive-ui'
import { computed, onMounted, ref, watch } from 'vue'
import { api, ask, Refused, type Problem, type Schemas } from '@/api/client'
import { grams, minutes } from '@/parts/format'
import { useSession } from '@/shell/session'
import { temperature } from './ways'
import { vChoices } from './choices'
import SpoonPicker from './SpoonPicker.vue'
import ThicknessRibbon from './ThicknessRibbon.vue'

type Remedy = Schemas['Remedy']
const props = defineProps<{
  sheet?: Record<string, unknown> | null
  at?: number | null
  batch?: number
  revision?: number
  seen?: Schemas['SeenIn'] | null
  take?: string
}>()
const emit = defineEmits<{
  take: [remedy: Remedy, sign: string]
  problems: [problems: Problem[]]
  saw: [viscosity: number]
}>()
const session = useSession()

const signs = ref<Schemas['Sign'][]>([])
const found = ref<Schemas['Mended'] | null>(null)
const picked = ref<string | null>(null)
const trouble = ref('')
const sign = computed(() => signs.value.find((s) => s.key === (picked.value ?? found.value?.sign)))
const open = computed(() => found.value?.remedies.filter((r) => r.refused === null) ?? [])
const closed = computed(() => found.value?.remedies.filter((r) => r.refused !== null) ?? [])
/** At hand: what the numbers speak for, what is picked, what is commonest. The rest on a list. */
const COMMON = ['too-thick', 'too-thin', 'lumps', 'too-salty', 'flat']
const atHand = computed(() => {
  const first = [...(found.value?.likely ?? []), ...COMMON, ...(sign.value ? [sign.value.key] : [])]
  return [...new Set(first)].flatMap((key) => signs.value.find((s) => s.key === key) ?? [])
})
const others = computed(() =>
  signs.value.filter((s) => !atHand.value.includes(s)).map((s) => ({ value: s.key, label: s.name })),
)

/** How it looks at the stove, where that is not as predicted. At a pot that is on, that is a look at it. */
const looksLike = ref<number | null>(null)
function seesIt(viscosity: number | null): void {
  if (props.batch === undefined) looksLike.value = viscosity
  else if (viscosity !== null) emit('saw', viscosity)
}
const asFound = computed<Schemas['SeenIn'] | null>(() =>
  props.sheet && looksLike.value !== null
    ? { viscosity_pa_s: looksLike.value, kind: '', temperature_c: 65, wanted: '', serving_c: 65 }
    : (props.seen ?? null),
)

const ofSheet = () =>
  api.POST('/api/work/fix', {
    body: { sheet: props.sheet ?? null, at: props.at ?? null, seen: asFound.value, sign: picked.value },
  })
const ofBatch = (id: number) =>
  api.POST('/api/stove/{batch_id}/fix', { params: { path: { batch_id: id } }, body: { sign: picked.value } })
let asked = 0
async function look(): Promise<void> {
  if (props.batch === undefined && !props.sheet && !props.seen?.amount) return
  const mine = ++asked
  try {
    const answer = await ask(props.batch === undefined ? ofSheet() : ofBatch(props.batch))
    if (mine !== asked) return
    found.value = answer
    trouble.value = ''
    emit('problems', [])
  } catch (error) {
    if (mine !== asked) return
    const refused = error instanceof Refused ? error.problems : []
    emit('problems', refused)
    // A pot told by hand shows what was refused in its own fields.
    trouble.value = refused.length && props.seen ? '' : (error as Error).message
  }
}
const lookSoon = useDebounceFn(look, 150)
onMounted(async () => {
  signs.value = (
    await ask(api.GET('/api/work/signs')).catch(() => ({ signs: [] as Schemas['Sign'][], kinds: [] }))
  ).signs
  await look()
})
watch(() => [props.sheet, props.at, props.revision, asFound.value], lookSoon, { deep: true })
function pick(key: string): void {
  picked.value = key
  void look()
}
const price = (r: Remedy) => {
  const money = r.cost >= 0.005 ? session.money(r.cost) : 'costs nothing'
  return `${minutes(r.minutes)} · ${money}${r.loses_g >= 1 ? ` · loses ${grams(r.loses_g)}` : ''}`
}
</script>

<template>
  <section class="fix" aria-label="Fix it">
    <div v-choices class="signs" role="radiogroup" aria-label="What is wrong">
      <button
        v-for="s in atHand"
        :key="s.key"
        type="button"
        role="radio"
        :aria-checked="sign?.key === s.key"
        :class="{ likely: found?.likely.includes(s.key) }"
        @click="pick(s.key)"
      >
        {{ s.name }}
      </button>
      <NSelect
        class="others"
        :value="null"
        :options="others"
        :virtual-scroll="false"
        placeholder="Something else…"
        aria-label="Something else"
        @update:value="pick"
      />
    </div>
    <details v-if="!seen" class="otherwise">
      <summary>Does it look otherwise than {{ batch === undefined ? 'predicted' : 'this' }}? Pick the spoon</summary>
      <SpoonPicker :model-value="looksLike" label="What it looks like" thin @update:model-value="seesIt" />
      <NButton v-if="looksLike !== null" size="small" @click="looksLike = null">As predicted after all</NButton>
    </details>
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    <template v-if="found">
      <div class="state">
        <p>
          Now: <b>{{ session.gradeName(found.now.grade) || found.now.reason }}</b>,
          {{ grams(found.now.total_g ?? found.now.mass_g) }}, {{ temperature(found.now.temperature_c) }}.
          <template v-if="found.wanted_grade">
            Wanted: <b>{{ session.gradeName(found.wanted_grade) }}</b>.</template
          >
        </p>
        <ThicknessRibbon
          v-if="found.now.viscosity_pa_s"
          slim
          :viscosity="found.now.viscosity_pa_s"
          :low="found.now.viscosity_low_pa_s"
          :high="found.now.viscosity_high_pa_s"
          :target="found.wanted_grade"
        />
      </div>
      <p v-if="!sign" class="quiet">By the numbers nothing is wrong with it. Pick what you see or taste.</p>
      <template v-else>
        <p class="why">{{ sign.why }}</p>
        <ul>
          <li v-for="r in open" :key="r.way" class="sheet">
            <header>
              <h3>{{ r.title }}</h3>
              <span class="price">{{ price(r) }}</span>
            </header>
            <ol>
              <li v-for="line in r.do" :key="line">{{ line }}</li>
            </ol>
            <p v-if="r.after && (r.after.grade || r.after.reason)" class="after">
              Then: <b>{{ session.gradeName(r.after.grade) || r.after.reason }}</b><template v-if="r.notes.length"
                >; {{ r.notes.join('; ') }}</template
              >
            </p>
            <NButton v-if="take" class="take" @click="emit('take', r, sign.key)">{{ take }}</NButton>
          </li>
        </ul>
        <details v-if="closed.length" :open="!open.length">
          <summary>{{ closed.length }} {{ closed.length === 1 ? 'way does' : 'ways do' }} not go, and why</summary>
          <p v-for="r in closed" :key="r.way">
            <b>{{ r.title }}</b>: {{ r.refused }}.
          </p>
        </details>
        <p class="good-news"><span class="label">Next time</span>{{ sign.next_time }}</p>
      </template>
    </template>
  </section>
</template>

<style scoped>
.fix {
  display: flex;
  flex-direction: column;
  gap: 10px;
}
.signs {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.signs button {
  min-height: 44px;
  padding: 4px 14px;
  border: 2px solid var(--fog3);
  border-radius: 22px;
  background: var(--white);
  font-weight: 600;
  cursor: pointer;
}
.others {
  width: 210px;
}
.signs .likely {
  border-color: var(--russet);
}
.signs .likely::after {
  content: ' · by the numbers';
  color: var(--russet);
  font-size: 14px;
}
.signs [aria-checked='true'] {
  border-color: var(--ink);
  background: var(--ink);
  color: var(--white);
}
.signs [aria-checked='true']::after {
  color: var(--white);
}
.state {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(160px, 40%);
  gap: 12px;
  align-items: center;
}
.why {
  color: var(--ink2);
}
ul {
  display: flex;
  flex-direction: column;
  gap: 8px;
  margin: 0;
  padding: 0;
  list-style: none;
}
ul > li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 2px 12px;
  padding: 10px 14px;
}
ul header {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: baseline;
  gap: 0 12px;
}
h3 {
  font-size: 22px;
}
.price {
  font-weight: 700;
}
ul ol {
  grid-column: 1 / -1;
  margin: 0;
  padding-left: 22px;
  font-size: 17px;
}
.after {
  align-self: center;
  color: var(--ink2);
}
.after b {
  color: var(--ink);
}
.take {
  grid-column: 2;
}
summary {
  min-height: 44px;
  padding: 11px 0;
  line-height: 1.4;
  cursor: pointer;
}
@media (max-width: 700px) {
  .state,
  ul > li {
    grid-template-columns: minmax(0, 1fr);
  }
  .take {
    grid-column: 1;
  }
}
</style>
