<script setup lang="ts">
/** Another saved sauce, made for this one in a pot of its own: all of it, until a cook says less. */
import { useDebounceFn } from '@vueuse/core'
import { NInput } from 'naive-ui'
import { computed, ref, watch } from 'vue'
import { api, ask, type Schemas } from '@/api/client'
import Dialog from '@/parts/Dialog.vue'
import { usePages } from '@/shell/pages'
import type { LooseSheet } from './draft'

const props = defineProps<{ not?: number }>()
const show = defineModel<boolean>('show', { required: true })
const emit = defineEmits<{ pick: [step: LooseSheet] }>()
const search = ref('')
const any = ref(true)
const trouble = ref('')
const {
  rows: found,
  left,
  load,
} = usePages((span) => ask(api.GET('/api/sauces', { params: { query: { ...span, q: search.value } } })))
const sauces = computed(() => (found.value ?? []).filter((s: Schemas['SauceLine']) => s.id !== props.not))
async function look(): Promise<void> {
  try {
    await load(true)
    trouble.value = ''
    if (!search.value) any.value = sauces.value.length > 0
  } catch (error) {
    trouble.value = (error as Error).message
  }
}
const lookSoon = useDebounceFn(look, 120)
watch(show, (open) => {
  search.value = ''
  if (open) void look()
})
async function pick(id: number): Promise<void> {
  try {
    const found = await ask(api.GET('/api/sauces/{sauce_id}', { params: { path: { sauce_id: id } } }))
    const { name, method, pan, burner, lid, strength, steps } = found.sheet
    const sauce = { name, method, pan, burner, lid, strength, steps }
    emit('pick', { op: 'use', sauce, amount: { share: 1 } })
    show.value = false
  } catch (error) {
    trouble.value = (error as Error).message
  }
}
</script>

<template>
  <Dialog v-model:show="show" title="Which sauce goes in?" width="520px">
    <p v-if="trouble" class="problem">{{ trouble }}</p>
    <p v-if="!any" class="quiet">Save the other sauce first; then it can go into this one.</p>
    <NInput
      v-else
      v-model:value="search"
      clearable
      placeholder="Search by name, kind or tag"
      :input-props="{ 'aria-label': 'Search' }"
      @update:value="lookSoon"
    />
    <p v-if="any && !sauces.length" class="quiet">Nothing by that name.</p>
    <button v-for="sauce in sauces" :key="sauce.id" class="plain" @click="pick(sauce.id)">{{ sauce.name }}</button>
    <p v-if="left > 0" class="quiet">And {{ left }} more: search for it by name.</p>
  </Dialog>
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
