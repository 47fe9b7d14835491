<script setup lang="ts">
/** The end of a batch: weigh it, pick the spoon it reached, a verdict, a note. */
import { NButton, NInput, NSwitch } from 'naive-ui'
import { toRefs, useSessionStorage } from '@vueuse/core'
import { computed, type Ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, ask, type Schemas } from '@/api/client'
import { scaleReads } from '@/parts/format'
import SpoonPicker from '@/parts/SpoonPicker.vue'
import { useForm } from '@/shell/form'
import { useHob } from '@/shell/hob'
import { useSession } from '@/shell/session'
import ProblemLine from '@/parts/ProblemLine.vue'
import { vChoices } from '@/parts/choices'

const props = defineProps<{ batch: Schemas['BatchOut'] }>()
defineEmits<{ back: []; fix: [] }>()
const session = useSession()
const hob = useHob()
const router = useRouter()

const tare = computed(() => props.batch.plan.pan.tare_g)
/** What was said so far outlives every way off this page, until it is written down. */
interface Said {
  weighed: string
  withPan: boolean
  reached: number | null
  verdict: string
  note: string
}
const nothing = (): Said => ({ weighed: '', withPan: tare.value > 0, reached: null, verdict: '', note: '' })
const said = useSessionStorage<Said>(`kestrel.weighing.${props.batch.id}`, nothing, { mergeDefaults: true })
const { weighed, withPan, reached, verdict, note } = toRefs(said as Ref<Said>)
const { trouble, busy, run, problemAt } = useForm()

const verdicts = [
  { key: 'again', words: 'Again just so' },
  { key: 'nearly', words: 'Nearly' },
  { key: 'not-so', words: 'Not like this' },
]
const writeDown = () =>
  run(async () => {
    await ask(
      api.POST('/api/journal', {
        body: {
          batch_id: props.batch.id,
          weighed: weighed.value,
          with_pan: withPan.value,
          reached_pa_s: reached.value,
          verdict: verdict.value,
          note: note.value,
        },
      }),
    )
    said.value = nothing()
    void hob.look().catch(() => undefined)
    const service = props.batch.service_id
    await router.push(service ? `/service/${service}?part=sheet` : '/journal')
  })
</script>

<template>
  <form class="weighing" @submit.prevent="writeDown">
    <div class="weigh">
      <label>
        <span class="label">What does it weigh? (g, or type kg)</span>
        <input v-model="weighed" inputmode="decimal" autocomplete="off" aria-label="Weighed" />
      </label>
      <label v-if="tare" class="switch">
        <NSwitch v-model:value="withPan" /> with the pan ({{ scaleReads(tare) }} empty)
      </label>
      <p v-if="batch.kind === 'free'" class="quiet">Leave it empty if nobody weighed.</p>
      <p v-else class="quiet">
        Planned {{ scaleReads((batch.plan.final.total_g ?? batch.plan.final.mass_g) + (withPan ? tare : 0))
        }}{{ withPan ? ' with the pan' : '' }}. Leave it empty if nobody weighed.
      </p>
      <ProblemLine :problem="problemAt('weighed')" />
    </div>
    <div>
      <div class="spoon-head">
        <span class="label">Which spoon does it look like?</span>
        <span v-if="batch.kind !== 'free'" class="quiet"
          >Planned: {{ session.gradeName(batch.plan.final.grade) || 'no grade' }}.</span
        >
        <NButton @click="$emit('fix')">Fix it</NButton>
      </div>
      <SpoonPicker v-model="reached" label="Which spoon does it look like?" />
    </div>
    <div>
      <span id="how-was-it" class="label">How was it?</span>
      <div v-choices class="verdicts" role="radiogroup" aria-labelledby="how-was-it">
        <button
          v-for="v in verdicts"
          :key="v.key"
          type="button"
          role="radio"
          :aria-checked="verdict === v.key"
          @click="verdict = v.key"
        >
          {{ v.words }}
        </button>
      </div>
      <ProblemLine :problem="problemAt('verdict')" subject="A verdict" />
    </div>
    <label>
      <span class="label">What to know next time</span>
      <NInput
        v-model:value="note"
        type="textarea"
        :autosize="{ minRows: 1, maxRows: 4 }"
        placeholder="what happened, what it needed, what the table said"
        :input-props="{ 'aria-label': 'Note' }"
      />
      <ProblemLine :problem="problemAt('note')" subject="The note" />
    </label>
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    <div class="moves">
      <NButton size="large" @click="$emit('back')">Back</NButton>
      <NButton size="large" type="primary" attr-type="submit" :loading="busy" class="forward">Write it down</NButton>
    </div>
  </form>
</template>

<style scoped>
.weighing {
  display: flex;
  flex-direction: column;
  gap: 10px;
  max-width: 960px;
}
.weigh {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px 20px;
}
.weigh input {
  width: 220px;
  min-height: 68px;
  padding: 4px 14px;
  border: 2px solid var(--fog4);
  border-radius: 10px;
  background: var(--white);
  font: 750 40px var(--text);
  text-align: right;
}
.switch {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 48px;
}
[aria-checked='true'] {
  border-color: var(--russet) !important;
  background: var(--russet-wash) !important;
}
.spoon-head {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 14px;
  margin-bottom: 6px;
}
.spoon-head button {
  min-height: 48px;
  margin-left: auto;
  font-size: 18px;
  font-weight: 700;
}
.verdicts {
  display: flex;
  gap: 8px;
}
.verdicts button {
  flex: 1;
  min-height: 64px;
  border: 3px solid var(--fog3);
  border-radius: 12px;
  background: var(--white);
  font-size: 20px;
  font-weight: 700;
  cursor: pointer;
}
.moves {
  display: flex;
  gap: 10px;
}
.forward {
  flex: 1;
}
@media (max-width: 700px) {
  .verdicts {
    flex-direction: column;
  }
}
</style>
