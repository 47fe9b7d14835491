<script setup lang="ts">
/** Middle: the sauce made for a step, in its own pan, its amounts editable in place. */
import { computed } from 'vue'
import type { Problem, Schemas } from '@/api/client'
import { grams, minutes } from '@/parts/format'
import { useSession } from '@/shell/session'
import type { LooseSheet } from './draft'
import { rowsOf } from './rows'
import StepAmounts from './StepAmounts.vue'

const props = defineProps<{
  pot: Schemas['CardsInside']
  open: boolean
  problemOf: (field: string) => Problem | null
}>()
const emit = defineEmits<{
  change: [write: (step: LooseSheet) => void, tag: string]
  missing: [what: { key: string; name: string }]
}>()
const session = useSession()

const made = computed(() => props.pot.sheet.steps as LooseSheet[])
const over = computed(() => props.pot.made_g - props.pot.used_g)
const rowsAt = (at: number) => rowsOf(made.value[at]!, props.pot.cards[at], (key) => session.ingredients.get(key)?.name)
/** What is typed here is of the sauce as it is made here, so that is what becomes of it. */
function change(at: number, write: (step: LooseSheet) => void, tag: string): void {
  const steps = JSON.parse(JSON.stringify(made.value)) as LooseSheet[]
  emit(
    'change',
    (step) => {
      step.sauce.steps = steps
      write(steps[at]!)
    },
    `sauce.${at}.${tag}`,
  )
}
</script>

<template>
  <section class="inside" :aria-label="`${pot.sheet.name}, made first`">
    <p>
      <b>First, in {{ pot.pan }}:</b> {{ grams(pot.made_g) }}
      <template v-if="over > 1">, {{ grams(over) }} stay over</template>
      <span class="quiet">
        · {{ session.gradeName(pot.final.grade) || 'no grade' }} · {{ minutes(pot.final.minutes) }}</span
      >
    </p>
    <ol v-if="open">
      <li v-for="(card, at) in pot.cards" :key="at">
        <b>{{ card.title }}</b>
        <StepAmounts
          :step="made[at]!"
          :rows="rowsAt(at)"
          :card="card"
          chosen
          :problem-of="(field) => problemOf(`sauce.steps[${at}].${field}`)"
          @change="(write, tag) => change(at, write, tag)"
          @missing="emit('missing', $event)"
        />
        <span class="quiet">{{ card.do }}</span>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.inside {
  margin: 4px 0;
  padding: 6px 12px;
  border-left: 4px solid var(--sauce);
  background: var(--fog1);
}
ol {
  display: flex;
  flex-direction: column;
  gap: 6px;
  margin: 6px 0 0;
  padding-left: 22px;
}
.quiet {
  font-size: 15px;
}
li > .quiet {
  display: block;
}
</style>
