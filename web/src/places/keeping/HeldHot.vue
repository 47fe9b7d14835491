<script setup lang="ts">
/** A finished sauce kept hot: what goes off it, how thick it is then, what brings it back. */
import { watchDebounced } from '@vueuse/core'
import { computed, onMounted, ref } from 'vue'
import { api, ask, Refused, type Problem, type Schemas } from '@/api/client'
import ChoiceField from '@/parts/ChoiceField.vue'
import { grams, millilitres, minutes } from '@/parts/format'
import NumberField from '@/parts/NumberField.vue'
import { useSession } from '@/shell/session'

const props = defineProps<{ possible: Schemas['PossibleOut'][] }>()
const session = useSession()
const batch = ref(String(props.possible[0]!.batch_id))
const at = ref('65')
const covered = ref(true)
const found = ref<Schemas['HoldingHot'] | null>(null)
const problems = ref<Problem[]>([])
async function reckon(): Promise<void> {
  problems.value = []
  try {
    const query = {
      batch_id: Number(batch.value),
      at_c: Number(at.value.trim().replace(',', '.') || 'x'),
      covered: covered.value,
    }
    found.value = await ask(api.GET('/api/keeping/holding', { params: { query } }))
  } catch (error) {
    found.value = null
    if (error instanceof Refused) problems.value = error.problems
  }
}
onMounted(reckon)
watchDebounced([batch, at, covered], reckon, { debounce: 200 })
const options = computed(() => props.possible.map((one) => ({ value: String(one.batch_id), label: one.name })))
const wrong = computed(() => problems.value.find((one) => one.field.endsWith('at_c')) ?? null)
</script>

<template>
  <section class="hot" aria-label="Kept hot">
    <h2>Kept hot</h2>
    <div class="row">
      <ChoiceField class="what" label="of today" :value="batch" :options="options" @change="batch = $event" />
      <NumberField label="at" unit="°C" :value="at" :problem="wrong" @change="at = $event" />
      <label class="check"><input v-model="covered" type="checkbox" />under film or butter</label>
    </div>
    <div v-if="found || !problems.length" class="answer">
      <ol v-if="found">
        <li v-for="one in found.after" :key="one.minutes">
          <span class="quiet">{{ minutes(one.minutes) }}</span>
          <b>{{ session.gradeName(one.grade) || 'no grade' }}</b>
          <span>{{
            one.let_down_ml >= 1 ? `${millilitres(one.let_down_ml)} brings it back` : 'nothing to let in'
          }}</span>
          <span v-if="one.lost_g >= 1" class="quiet">{{ grams(one.lost_g) }} gone</span>
        </li>
      </ol>
      <p v-if="found" :class="found.ok ? 'quiet' : 'warning'">{{ found.ok ? '✓' : '!' }} {{ found.words }}.</p>
      <p v-if="found" class="quiet">{{ found.stands }}.</p>
    </div>
  </section>
</template>

<style scoped>
.hot {
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
.what {
  flex: 0 1 320px;
  min-width: 0;
  max-width: 100%;
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
.answer {
  min-height: 130px; /* what is below it does not move as the answer comes */
}
ol {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 28px;
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  flex-direction: column;
}
li b {
  font: 600 22px var(--display);
}
</style>
