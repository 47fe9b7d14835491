<script setup lang="ts">
/** The figures of one pot, what is to be known of it, and ways to make it fit better. */
import { NButton } from 'naive-ui'
import { computed } from 'vue'
import FactList from '@/parts/FactList.vue'
import { grams, millilitres, minutes } from '@/parts/format'
import { useSession } from '@/shell/session'
import type { Plan } from './service'

const props = defineProps<{ plan: Plan; pot: Plan['pots'][number] }>()
const emit = defineEmits<{ force: [sauce: string, way: string] }>()
const session = useSession()
const branchOf = (key: string | null | undefined) => props.plan.branches.find((b) => b.key === key)
const facts = computed(() => {
  const { pot } = props
  const several = pot.batches > 1
  return {
    Make: `${several ? `${pot.batches} × ` : ''}${millilitres(pot.made_ml / pot.batches)}`,
    Weighs: grams(pot.made_g / pot.batches),
    In: `${pot.in_pan}, ${Math.round(100 * pot.fill_share)} % full`,
    Takes: `${minutes(pot.minutes)}${several ? ' each' : ''}`,
    Thick: session.gradeName(pot.final.grade) || 'no grade',
    'To sauces': grams(pot.taken_g),
    Clings: grams(pot.film_g),
    Left: grams(Math.max(0, pot.left_g)),
  }
})
</script>

<template>
  <h3>{{ pot.mother ? `Mother pot: ${pot.name}` : pot.name }}</h3>
  <FactList :facts="facts" />
  <p v-if="pot.mother" class="quiet">
    As thick as {{ branchOf(pot.thickest)?.name }} needs it before its own additions; the others are let down.
  </p>
  <p v-if="pot.guests?.length" class="guests">Guests first, in clean things: {{ pot.guests.join('; ') }}</p>
  <p v-for="note in pot.notes" :key="note" class="warning">{{ note }}</p>
  <p v-for="offer in pot.offers" :key="offer.do" class="warning">
    {{ offer.words }}.
    <NButton size="small" @click="emit('force', branchOf(offer.branch)?.sauce ?? '', offer.do)">Do that</NButton>
  </p>
</template>

<style scoped>
.guests {
  font-weight: 700;
  color: var(--russet);
}
</style>
