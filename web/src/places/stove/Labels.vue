<script setup lang="ts">
/** A label for what is put away: how many, how much is in it; printed by a printer of the kitchen's, or here. */
import { NButton } from 'naive-ui'
import { ref } from 'vue'
import { api, ask, type Schemas } from '@/api/client'
import ProblemLine from '@/parts/ProblemLine.vue'
import { useActs } from '@/shell/acts'
import { useForm } from '@/shell/form'

const props = defineProps<{ batch: Schemas['BatchOut']; weighedG?: number | null }>()
const acts = useActs()
const copies = ref('1')
const { trouble, busy, run, problemAt } = useForm()
const make = () =>
  run(async () => {
    const body = {
      copies: Number(copies.value),
      mass_g: props.weighedG ?? null,
      utc_offset_min: -new Date().getTimezoneOffset(),
    }
    await ask(api.POST('/api/stove/{batch_id}/labels', { params: { path: { batch_id: props.batch.id } }, body }))
    await acts.load(props.batch.id)
  })
/** Its picture alone on a page of its own, for a printer of this computer's. */
const here = (id: number) => window.open(`/api/labels/${id}.svg`, '_blank', 'noopener')
</script>

<template>
  <section class="labels" aria-label="Labels">
    <form @submit.prevent="make">
      <span class="label">Put some away?</span>
      <input v-model="copies" class="box" inputmode="numeric" aria-label="How many labels" />
      <NButton size="large" attr-type="submit" :loading="busy">{{ copies === '1' ? 'label' : 'labels' }}</NButton>
      <ProblemLine :problem="problemAt('copies')" subject="Labels" />
      <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    </form>
    <figure v-for="one in batch.labels" :key="one.id">
      <img :src="`/api/labels/${one.id}.svg`" :alt="one.text" />
      <figcaption>
        {{ one.copies }} × · {{ one.printed_at ? 'printed' : 'waits for a label printer' }}
        <NButton @click="here(one.id)">Open to print here</NButton>
      </figcaption>
      <p class="quiet">{{ one.document.keeps }}. A usual caution: local rules and your own plan come first.</p>
    </figure>
  </section>
</template>

<style scoped>
.labels {
  display: flex;
  flex-direction: column;
  gap: 10px;
}
form {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}
form .box {
  width: 64px;
}
figure {
  max-width: 480px;
  margin: 0;
}
img {
  width: 100%;
  border: 1px solid var(--fog4);
  border-radius: 8px;
}
figcaption {
  display: flex;
  align-items: center;
  gap: 12px;
}
</style>
