<script setup lang="ts">
/** One dish, so many portions, at a time: a plan in two taps, without a service. */
import { NButton } from 'naive-ui'
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, ask, type Schemas } from '@/api/client'
import ChoiceField from '@/parts/ChoiceField.vue'
import { isoDay } from '@/parts/format'
import { offsetHere } from './run-up'

const props = defineProps<{ dishes?: Schemas['DishOut'][]; dish?: number }>()
const router = useRouter()
const id = ref<number | null>(props.dish ?? props.dishes?.[0]?.id ?? null)
const portions = ref('4')
const at = ref(inAnHourAndAHalf())
const trouble = ref('')
function inAnHourAndAHalf(): string {
  const then = new Date(Date.now() + 90 * 60_000)
  then.setMinutes(Math.ceil(then.getMinutes() / 15) * 15)
  return `${String(then.getHours()).padStart(2, '0')}:${String(then.getMinutes()).padStart(2, '0')}`
}
/** The day on which that time is next. */
function dayOf(clock: string): string {
  const then = new Date()
  const [hours, minutes] = clock.split(':').map(Number)
  then.setHours(hours ?? 0, minutes ?? 0, 0, 0)
  if (then.getTime() < Date.now()) then.setDate(then.getDate() + 1)
  return isoDay(then)
}
async function plan(): Promise<void> {
  const count = Number(portions.value.replace(',', '.'))
  if (!Number.isFinite(count) || count <= 0 || count > 500) {
    trouble.value = `“${portions.value}” is no number of portions. Give 1 to 500.`
    return
  }
  try {
    const body = {
      dish_id: id.value,
      portions: count,
      serve_at: at.value,
      day: dayOf(at.value),
      utc_offset_min: offsetHere(),
    }
    const made = await ask(api.POST('/api/run-ups', { body }))
    await router.push(`/run-up/${made.id}`)
  } catch (error) {
    trouble.value = (error as Error).message
  }
}
</script>

<template>
  <form class="tonight" @submit.prevent="plan">
    <ChoiceField
      v-if="dishes"
      label="Dish"
      :value="String(id)"
      :options="dishes.map((one) => ({ value: String(one.id), label: one.name }))"
      @change="id = Number($event)"
    />
    <label
      ><span class="label">portions</span
      ><input v-model="portions" class="box" inputmode="decimal" aria-label="Portions"
    /></label>
    <label
      ><span class="label">served at</span><input v-model="at" class="box" type="time" aria-label="Served at"
    /></label>
    <NButton type="primary" size="large" attr-type="submit">Plan it</NButton>
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
  </form>
</template>

<style scoped>
.tonight {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 130px), 1fr));
  gap: 8px 12px;
  align-items: end;
}
.tonight > :first-child:not(label),
.problem {
  grid-column: 1 / -1;
}
</style>
