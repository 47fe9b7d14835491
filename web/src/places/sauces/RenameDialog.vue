<script setup lang="ts">
/** A sauce gets another name; another window's newer version is not overwritten. */
import { NButton, NInput } from 'naive-ui'
import { ref, watch } from 'vue'
import { api, ask, type Schemas } from '@/api/client'
import Dialog from '@/parts/Dialog.vue'
import { useForm } from '@/shell/form'
import ProblemLine from '@/parts/ProblemLine.vue'

const props = defineProps<{ sauce: Schemas['SauceLine'] | null }>()
const emit = defineEmits<{ close: []; renamed: [] }>()
const name = ref('')
const form = useForm()
watch(
  () => props.sauce,
  (sauce) => {
    name.value = sauce?.name ?? ''
    form.clear()
  },
)
async function rename(): Promise<void> {
  const sauce = props.sauce
  if (!sauce) return
  const path = { params: { path: { sauce_id: sauce.id } } }
  const body = { name: name.value, base_version: sauce.version }
  const done = await form.run(() => ask(api.POST('/api/sauces/{sauce_id}/rename', { ...path, body })))
  emit('renamed')
  if (done) emit('close')
}
</script>

<template>
  <Dialog :show="Boolean(sauce)" title="Rename" width="480px" @update:show="(show: boolean) => show || emit('close')">
    <form @submit.prevent="rename">
      <NInput v-model:value="name" :input-props="{ 'aria-label': 'New name', autofocus: true }" />
      <ProblemLine :problem="form.problemAt('name')" subject="The name" />
      <p v-if="form.trouble.value" class="problem" role="alert">{{ form.trouble.value }}</p>
      <NButton type="primary" attr-type="submit">Rename</NButton>
    </form>
  </Dialog>
</template>

<style scoped>
form {
  display: flex;
  flex-direction: column;
  gap: 12px;
}
</style>
