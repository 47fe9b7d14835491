<script setup lang="ts">
/** The kitchen's own pans for this sauce: minutes, what boils off, twice the batch. */
import { NButton } from 'naive-ui'
import { ref, watch } from 'vue'
import { api, ask, type Schemas } from '@/api/client'
import Dialog from '@/parts/Dialog.vue'
import { grams, minutes } from '@/parts/format'
import type { LooseSheet } from './draft'

const props = defineProps<{ sheet: LooseSheet; now: string }>()
const show = defineModel<boolean>('show', { required: true })
const emit = defineEmits<{ take: [name: string] }>()
const found = ref<Schemas['WhichPan'] | null>(null)
const trouble = ref('')
watch(show, async (open) => {
  if (!open) return
  found.value = null
  trouble.value = ''
  try {
    found.value = await ask(api.POST('/api/work/pans', { body: { sheet: props.sheet } }))
  } catch (error) {
    trouble.value = (error as Error).message
  }
})
</script>

<template>
  <Dialog v-model:show="show" title="Which pan" width="720px">
    <p v-if="trouble" class="problem">{{ trouble }}</p>
    <p v-else-if="!found" class="quiet">Trying each of your pans…</p>
    <p v-else-if="!found.pans.length" class="quiet">No pans yet: add yours in the Larder.</p>
    <div v-else class="scroll">
      <p v-if="found.ring_decides" class="quiet">
        Minutes are the same in most: the ring decides them here, not the pan. The pan decides how it stands, and where
        it catches.
      </p>
      <table class="grid">
        <thead>
          <tr>
            <th>pan</th>
            <th class="n">at the stove</th>
            <th class="n">twice the batch</th>
            <th class="n">boils off</th>
            <th class="n">full to</th>
            <th />
          </tr>
        </thead>
        <tbody>
          <tr v-for="pan in found.pans" :key="pan.name" :class="{ no: !pan.fits, best: pan.recommended }">
            <td>
              <b>{{ pan.name }}</b><br /><span class="quiet">{{ pan.verdict }}</span>
            </td>
            <td class="n">
              <b v-if="pan.minutes !== null">{{ minutes(pan.minutes) }}</b>
            </td>
            <td class="n">{{ pan.minutes_doubled === null ? '' : minutes(pan.minutes_doubled) }}</td>
            <td class="n">{{ pan.boiled_off_g === null ? '' : grams(pan.boiled_off_g) }}</td>
            <td class="n">{{ Math.round(100 * pan.fullest_share) }} %</td>
            <td>
              <span v-if="pan.name === now" class="quiet">this one</span>
              <NButton v-else-if="pan.fits" @click="(emit('take', pan.name), (show = false))">Take it</NButton>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </Dialog>
</template>

<style scoped>
.no {
  color: var(--ink2);
}
.best td {
  background: var(--leaf-wash);
}
</style>
