<script setup lang="ts">
/** What became of a batch: portions that went out, what was thrown away, the emptied pot. */
import { NButton, NInput, useMessage } from 'naive-ui'
import { computed, onMounted, ref } from 'vue'
import { api, ask, Refused, type Problem, type Schemas } from '@/api/client'
import { grams } from '@/parts/format'
import NumberField from '@/parts/NumberField.vue'
import ProblemLine from '@/parts/ProblemLine.vue'

const props = defineProps<{ batch: Schemas['BatchOut'] }>()
const message = useMessage()
const said = ref<Schemas['ServedOut'] | null>(null)
const typed = ref({ portions: '', thrown: '', emptied: '', reason: '' })
const problems = ref<Problem[]>([])
const path = { batch_id: props.batch.id }
const of = (field: string) => problems.value.find((one) => one.field === field) ?? null
const some = computed(() => typed.value.portions || typed.value.thrown || typed.value.emptied)
onMounted(async () => {
  said.value = await ask(api.GET('/api/journal/of-batch/{batch_id}/served', { params: { path } })).catch(() => null)
})
const reasons = ['too much made', 'left standing', 'came out wrong', 'past its day']
let key = crypto.randomUUID()
async function say(): Promise<void> {
  problems.value = []
  try {
    const body = { key, ...typed.value }
    said.value = await ask(api.POST('/api/journal/of-batch/{batch_id}/served', { params: { path }, body }))
    key = crypto.randomUUID()
    typed.value = { portions: '', thrown: '', emptied: '', reason: '' }
    message.success('Written down.')
  } catch (error) {
    if (error instanceof Refused) problems.value = error.problems
    else message.error((error as Error).message)
  }
}
</script>

<template>
  <section class="afterwards" aria-label="Afterwards">
    <h3>Afterwards</h3>
    <p v-if="said?.said" class="good-news">
      <template v-if="said.portions !== null">{{ said.portions }} portions went out. </template>
      <template v-if="said.thrown_g !== null"
        >{{ grams(said.thrown_g) }} thrown away<template v-if="said.reason">, {{ said.reason }}</template
        >.
      </template>
      <template v-if="said.film_g !== null">{{ grams(said.film_g) }} clung to the pot.</template>
    </p>
    <p v-if="said" class="quiet">
      {{ grams(said.made_g) }} made<template v-if="said.kept_g">, {{ grams(said.kept_g) }} put away</template>. What you
      say here teaches how much to make.
    </p>
    <form @submit.prevent="say">
      <NumberField
        label="Portions that went out"
        :value="typed.portions"
        :problem="of('portions')"
        @change="typed.portions = $event"
      />
      <NumberField
        label="Thrown away"
        unit="g"
        :value="typed.thrown"
        :problem="of('thrown')"
        @change="typed.thrown = $event"
      />
      <NumberField
        label="Emptied pot on the scale"
        unit="g"
        :value="typed.emptied"
        :problem="of('emptied')"
        @change="typed.emptied = $event"
      />
      <div v-if="typed.thrown.trim() && typed.thrown.trim() !== '0'" class="why">
        <NInput
          v-model:value="typed.reason"
          maxlength="120"
          placeholder="why"
          :input-props="{ 'aria-label': 'Why it was thrown away' }"
        />
        <NButton v-for="one in reasons" :key="one" size="small" @click="typed.reason = one">{{ one }}</NButton>
        <ProblemLine :problem="of('reason')" />
      </div>
      <NButton attr-type="submit" size="large" :disabled="!some">Write it down</NButton>
    </form>
  </section>
</template>

<style scoped>
.afterwards {
  display: flex;
  flex-direction: column;
  gap: 8px;
}
h3 {
  font-size: 21px;
}
form {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 10px 16px;
}
.why {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
  flex-basis: 100%;
}
.why > :first-child {
  flex: 1 1 180px;
  max-width: 320px;
}
</style>
