<script setup lang="ts">
/** What a cook sees of the pot, said in one press: it moves what is believed of it. */
import { NButton } from 'naive-ui'
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import Dialog from '@/parts/Dialog.vue'
import SpoonPicker from '@/parts/SpoonPicker.vue'

const props = defineProps<{ batch: Schemas['BatchOut'] }>()
const emit = defineEmits<{ saw: [what: 'gone' | 'spoon' | 'boils', value: number]; weighed: [read: string] }>()
const watched = computed(() => props.batch.followed?.watched ?? null)
const corrects = computed(() => props.batch.sheet.steps?.[props.batch.step]?.op === 'correct')
/** None at the step that has its own. */
const spoons = computed(() =>
  corrects.value
    ? []
    : props.batch.spoons.map((one) => ({ ...one, key: one.name + one.film_mm, target_pa_s: one.viscosity_pa_s })),
)
const lifting = ref(false)
const picked = computed<number | null>({
  get: () => null,
  set: (value) => {
    lifting.value = false
    if (value !== null) emit('saw', 'spoon', value)
  },
})
const gone = [
  { share: 0.25, words: '¼ gone' },
  { share: 0.5, words: '½ gone' },
  { share: 0.75, words: '¾ gone' },
]
/** Typed and sent, or typed and left: it counts. */
const reads = ref('')
function weighed(): void {
  if (reads.value.trim()) emit('weighed', reads.value.trim())
  reads.value = ''
}
const boiling = computed(() => (watched.value?.boils_in_min ?? 0) <= 0)
const scale = computed(() => props.batch.devices.find((one) => one.kind === 'scale'))
</script>

<template>
  <section v-if="watched || spoons.length" class="looks" aria-label="What do you see?">
    <div class="row">
      <span class="label">What do you see?</span>
      <NButton v-if="watched && !boiling" size="large" @click="emit('saw', 'boils', 1)">It boils</NButton>
      <template v-if="watched">
        <NButton v-for="one in gone" :key="one.share" size="large" @click="emit('saw', 'gone', one.share)">{{
          one.words
        }}</NButton>
      </template>
      <NButton v-if="spoons.length" size="large" :aria-expanded="lifting" @click="lifting = !lifting">Spoon</NButton>
      <form v-if="watched && !scale" class="reads" @submit.prevent="weighed">
        <input v-model="reads" autocomplete="off" placeholder="1500" aria-label="The scale reads, g" @blur="weighed" />
        <NButton size="large" attr-type="submit" :disabled="!reads.trim()">g on the scale</NButton>
      </form>
    </div>
    <Dialog v-model:show="lifting" title="Lift the spoon: which does it look like?" width="900px">
      <SpoonPicker v-model="picked" :spoons="spoons" label="Which spoon does it look like?" />
    </Dialog>
  </section>
</template>

<style scoped>
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}
.label {
  flex-basis: 100%;
}
.row > :deep(.n-button) {
  padding: 0 12px;
}
.reads {
  display: flex;
  gap: 4px;
}
.reads input {
  width: 84px;
  min-height: 44px;
  padding: 2px 8px;
  border: 2px solid var(--fog4);
  border-radius: 8px;
  background: var(--white);
  font: 700 20px var(--text);
  text-align: right;
}
</style>
