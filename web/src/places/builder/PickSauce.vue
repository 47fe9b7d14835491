<script setup lang="ts">
/** Another saved sauce, made for this one in a pot of its own: all of it, until a cook says less. */
import { NModal } from 'naive-ui'
import { ref, watch } from 'vue'
import { api, ask, type Schemas } from '@/api/client'
import type { LooseSheet } from './draft'

const props = defineProps<{ not?: number }>()
const show = defineModel<boolean>('show', { required: true })
const emit = defineEmits<{ pick: [step: LooseSheet] }>()
const sauces = ref<Schemas['SauceLine'][]>([])
const trouble = ref('')
watch(show, async (open) => {
  if (!open) return
  try {
    sauces.value = (await ask(api.GET('/api/sauces'))).filter((s) => s.id !== props.not)
    trouble.value = ''
  } catch (error) {
    trouble.value = (error as Error).message
  }
})
async function pick(id: number): Promise<void> {
  try {
    const found = await ask(api.GET('/api/sauces/{sauce_id}', { params: { path: { sauce_id: id } } }))
    const { name, method, pan, burner, lid, steps } = found.sheet
    const sauce = { name, method, pan, burner, lid, steps }
    emit('pick', { op: 'use', sauce, amount: { share: 1 } })
    show.value = false
  } catch (error) {
    trouble.value = (error as Error).message
  }
}
</script>

<template>
  <NModal v-model:show="show" preset="card" title="Which sauce goes in?" style="width: min(520px, 96vw)">
    <p v-if="trouble" class="problem">{{ trouble }}</p>
    <p v-if="!sauces.length" class="quiet">Save the other sauce first; then it can go into this one.</p>
    <button v-for="sauce in sauces" :key="sauce.id" class="plain" @click="pick(sauce.id)">{{ sauce.name }}</button>
  </NModal>
</template>

<style scoped>
button {
  display: block;
  width: 100%;
  min-height: 48px;
  border-bottom: 1px solid var(--fog2);
  text-align: left;
  font-size: 17px;
}
</style>
