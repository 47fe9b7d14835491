<script setup lang="ts">
/** A filled dish from the fridge: how long in which oven until its middle is hot, and whether the rules allow it. */
import { watchDebounced } from '@vueuse/core'
import { computed, onMounted, ref } from 'vue'
import { api, ask, Refused, type Problem, type Schemas } from '@/api/client'
import { minutes } from '@/parts/format'
import NumberField from '@/parts/NumberField.vue'

const depth = ref('40')
const oven = ref('180')
const fan = ref(false)
const covered = ref(true)
const found = ref<Schemas['HeatedThrough'] | null>(null)
const problems = ref<Problem[]>([])
const number = (text: string) => Number(text.trim().replace(',', '.') || 'x')
async function reckon(): Promise<void> {
  problems.value = []
  try {
    const query = { depth_mm: number(depth.value), oven_c: number(oven.value), fan: fan.value, covered: covered.value }
    found.value = await ask(api.GET('/api/keeping/heating', { params: { query } }))
  } catch (error) {
    found.value = null
    if (error instanceof Refused) problems.value = error.problems
  }
}
onMounted(reckon)
watchDebounced([depth, oven, fan, covered], reckon, { debounce: 200 })
const at = (field: string) => problems.value.find((one) => one.field.endsWith(field)) ?? null
const span = computed(() => (found.value ? `${Math.round(found.value.low)} to ${minutes(found.value.high)}` : ''))
</script>

<template>
  <section class="heating" aria-label="A filled dish from the fridge">
    <h2>A filled dish from the fridge</h2>
    <div class="row">
      <NumberField label="filled" unit="mm deep" :value="depth" :problem="at('depth_mm')" @change="depth = $event" />
      <NumberField label="oven at" unit="°C" :value="oven" :problem="at('oven_c')" @change="oven = $event" />
      <label class="check"><input v-model="fan" type="checkbox" />fan</label>
      <label class="check"><input v-model="covered" type="checkbox" />covered</label>
      <p v-if="found" class="found" :class="{ slow: !found.ok }">
        <b>{{ minutes(found.minutes) }}</b> <span class="quiet">{{ span }}</span>
      </p>
    </div>
    <p v-if="found" :class="found.ok ? 'quiet' : 'warning'">{{ found.ok ? '✓' : '!' }} {{ found.words }}.</p>
  </section>
</template>

<style scoped>
.heating {
  display: flex;
  flex-direction: column;
  gap: 6px;
}
h2 {
  font-size: 21px;
}
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 6px 18px;
}
.check {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 44px;
}
.check input {
  width: 22px;
  height: 22px;
}
.found b {
  font: 600 30px var(--display);
}
</style>
