<script setup lang="ts">
/** A trainer on the same engine: questions made of this kitchen's own sauces and pans. */
import { NButton } from 'naive-ui'
import { computed, nextTick, ref } from 'vue'
import { api, ask, type Schemas } from '@/api/client'
import SpoonBack from '@/parts/SpoonBack.vue'
import { useList } from '@/shell/list'
import { onKey } from '@/shell/keys'
import FallingPot from './FallingPot.vue'
import JournalTabs from './JournalTabs.vue'
import PotLevel from './PotLevel.vue'
import { percent } from '@/parts/format'

type Kind = Schemas['Standing']['kind']
const names: Record<Kind, string> = {
  spoon: 'the spoon',
  boils: 'once it boils',
  level: 'the level',
  flour: 'the flour',
  stop: 'when to stop',
  order: 'the order',
  remedy: 'what mends it',
}
const standing = ref<Schemas['Standing'][]>([])
const only = ref<Kind | null>(null)
const asked = ref<Schemas['AskedOut'] | null>(null)
const given = ref<string[]>([])
const marked = ref<Schemas['Marked'] | null>(null)
const busy = ref(false)
const next = ref<InstanceType<typeof NButton>>()
const { trouble, load } = useList(async () => {
  standing.value = await ask(api.GET('/api/practice'))
  if (!asked.value) await another()
})
const question = computed(() => asked.value?.question ?? null)
const words = (key: string) => question.value?.choices?.find((one) => one.key === key)?.words ?? key

async function another(): Promise<void> {
  busy.value = true
  try {
    const made = await ask(api.POST('/api/practice', { body: { kind: only.value } }))
    marked.value = null
    given.value = []
    asked.value = made
    trouble.value = ''
  } catch (error) {
    trouble.value = (error as Error).message
  } finally {
    busy.value = false
  }
}
async function answer(keys: string[]): Promise<void> {
  if (!asked.value || marked.value || busy.value) return
  busy.value = true
  try {
    const path = { round_id: asked.value.id }
    const told = await ask(api.POST('/api/practice/{round_id}', { params: { path }, body: { given: keys } }))
    given.value = keys
    marked.value = told.marked
    standing.value = told.standing
    trouble.value = ''
    await nextTick()
    ;(next.value?.$el as HTMLElement | undefined)?.focus()
  } catch (error) {
    trouble.value = (error as Error).message
  } finally {
    busy.value = false
  }
}
function pick(key: string): void {
  if (marked.value) return
  if (!question.value?.order) {
    void answer([key])
    return
  }
  given.value = given.value.includes(key) ? given.value.filter((one) => one !== key) : [...given.value, key]
}
const whole = computed(() => question.value?.order && given.value.length === question.value.choices?.length)
function of(kind: Kind | null): void {
  only.value = kind
  void another()
}
onKey((key) => {
  const at = 'abcdef'.indexOf(key.toLowerCase())
  const choice = question.value?.choices?.[at]
  if (at < 0 || key.length !== 1 || !choice || marked.value) return false
  pick(choice.key)
  return true
})
const verdict = computed(() => {
  if (!marked.value) return ''
  const score = marked.value.score
  const off = marked.value.off_pct
  if (off !== null && off !== undefined) {
    if (Math.abs(off) < 1) return 'Right on it.'
    return `${percent(Math.abs(off))} too ${off > 0 ? 'much left: stopped early' : 'little left: stopped late'}.`
  }
  if (score >= 0.99) return 'Right.'
  return score > 0 ? 'Nearly.' : 'No.'
})
</script>

<template>
  <div class="place">
    <JournalTabs />
    <p v-if="trouble" class="problem" role="alert">
      {{ trouble }} <NButton size="small" @click="load">Try again</NButton>
    </p>
    <ul class="standing" aria-label="How you stand">
      <li v-for="one in standing" :key="one.kind">
        <button class="kind" :aria-pressed="only === one.kind" @click="of(only === one.kind ? null : one.kind)">
          <span>{{ names[one.kind] }}</span>
          <b v-if="one.score !== null">{{ Math.round(100 * one.score) }} %</b>
          <small v-else>not yet</small>
          <i class="bar" aria-hidden="true"><i :style="{ width: `${100 * (one.score ?? 0)}%` }"></i></i>
        </button>
      </li>
    </ul>
    <section v-if="question" class="sheet question" :aria-label="names[question.kind]">
      <h2>{{ question.ask }}</h2>
      <div class="body">
        <SpoonBack
          v-if="question.spoon"
          class="picture"
          :viscosity="question.spoon.viscosity_pa_s"
          :film-mm="question.spoon.film_mm"
          looks="to be told"
        />
        <PotLevel
          v-if="question.pot"
          class="picture wide"
          :pan="question.pot.pan"
          :level="question.pot.level_mm"
          :before="question.pot.before_mm"
        />
        <FallingPot
          v-if="question.falls?.length && question.pan"
          :key="asked?.id"
          class="picture wide"
          :pan="question.pan"
          :falls="question.falls"
          :over="Boolean(marked)"
          @stop="answer([String($event)])"
        />
        <ol v-if="question.choices?.length" class="choices">
          <li v-for="(choice, n) in question.choices" :key="choice.key">
            <button
              class="choice"
              :class="{
                right: marked && !question.order && marked.right?.includes(choice.key),
                wrong: marked && !question.order && given.includes(choice.key) && !marked.right?.includes(choice.key),
              }"
              :aria-pressed="given.includes(choice.key)"
              :disabled="Boolean(marked)"
              @click="pick(choice.key)"
            >
              <kbd>{{
                question.order && given.includes(choice.key) ? given.indexOf(choice.key) + 1 : 'abcdef'[n]
              }}</kbd>
              <span>{{ choice.words }}</span>
              <b v-if="marked && !question.order && marked.right?.includes(choice.key)">✓</b>
            </button>
          </li>
        </ol>
      </div>
      <NButton v-if="whole && !marked" type="primary" size="large" @click="answer(given)">So it goes</NButton>
      <div v-if="marked" class="mark" :class="{ good: marked.score >= 0.8 }" role="status">
        <p class="verdict">{{ verdict }}</p>
        <ol v-if="question.order">
          <li v-for="key in marked.right" :key="key">{{ words(key) }}</li>
        </ol>
        <p>{{ marked.why.replace(/\.$/, '') }}.</p>
        <NButton ref="next" type="primary" size="large" :loading="busy" @click="another">Another</NButton>
      </div>
    </section>
    <p class="quiet">
      Asked of your own sauces and pans, marked against the model, which is an estimate too. What you missed comes
      again. Your results are yours alone.
    </p>
  </div>
</template>

<style scoped>
.place {
  display: flex;
  flex-direction: column;
  gap: 10px;
  max-width: 1000px;
  padding: 16px 20px 24px;
}
.standing {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(130px, 1fr));
  gap: 8px;
  margin: 0;
  padding: 0;
  list-style: none;
}
.kind {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 2px 8px;
  width: 100%;
  min-height: 56px;
  padding: 6px 12px;
  border: 2px solid var(--fog2);
  border-radius: 10px;
  background: var(--fog0);
  text-align: left;
  cursor: pointer;
}
.kind[aria-pressed='true'] {
  border-color: var(--russet);
}
.bar {
  grid-column: 1 / -1;
  height: 6px;
  border-radius: 3px;
  background: var(--fog2);
}
.bar i {
  display: block;
  height: 100%;
  border-radius: 3px;
  background: var(--leaf);
}
.question {
  display: flex;
  flex-direction: column;
  gap: 14px;
  padding: 16px 20px;
}
h2 {
  font-size: 26px;
}
.body {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 16px 32px;
}
.picture {
  flex: 0 1 190px;
}
svg.picture {
  max-height: 300px;
}
.picture.wide {
  flex: 1 1 min(360px, 100%);
  min-width: 0;
}
.choices {
  display: flex;
  flex: 1 1 min(340px, 100%);
  flex-direction: column;
  gap: 8px;
  margin: 0;
  padding: 0;
  list-style: none;
}
.choice {
  display: flex;
  align-items: center;
  gap: 14px;
  width: 100%;
  min-height: 56px;
  padding: 6px 14px;
  border: 2px solid var(--fog3);
  border-radius: 10px;
  background: var(--white);
  font-size: 20px;
  text-align: left;
  cursor: pointer;
}
.choice:disabled {
  color: var(--ink);
  cursor: default;
}
.choice[aria-pressed='true'] {
  border-color: var(--ink);
}
.choice.right {
  border-color: var(--leaf);
  background: var(--leaf-wash);
}
.choice.wrong {
  border-color: var(--danger);
  background: var(--danger-wash);
}
kbd {
  display: grid;
  flex: none;
  place-items: center;
  width: 30px;
  height: 30px;
  border-radius: 6px;
  background: var(--fog2);
  font: 700 16px var(--text);
}
.mark {
  display: flex;
  flex-direction: column;
  align-items: start;
  gap: 8px;
  padding: 12px 16px;
  border-left: 6px solid var(--butter);
  background: var(--butter-wash);
  font-size: 18px;
}
.mark.good {
  border-left-color: var(--leaf);
  background: var(--leaf-wash);
}
.verdict {
  font: 600 26px var(--display);
}
.mark ol {
  margin: 0;
}
</style>
