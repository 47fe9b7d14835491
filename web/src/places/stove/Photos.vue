<script setup lang="ts">
/** Photographs of a pot: taken here, made small here, kept until the server has them. */
import { NButton } from 'naive-ui'
import { onUnmounted, ref } from 'vue'
import { timeOf } from '@/parts/format'
import { api, ask, Refused, type Schemas } from '@/api/client'
import { newKey } from '@/api/once'
import { useActs } from '@/shell/acts'
import { smaller } from './smaller'

const props = defineProps<{ batch: Schemas['BatchOut'] }>()
const acts = useActs()
const trouble = ref('')
/** On their way: shown already, sent again until they are there. */
const sending = ref<{ key: string; at: string; step: number; file: Blob; url: string }[]>([])
onUnmounted(() => sending.value.forEach((one) => URL.revokeObjectURL(one.url)))
async function take(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  for (const file of input.files ?? []) {
    const small = await smaller(file)
    sending.value.push({
      key: newKey(),
      at: new Date().toISOString(),
      step: props.batch.step,
      file: small,
      url: URL.createObjectURL(small),
    })
  }
  input.value = ''
  await send()
}
async function send(): Promise<void> {
  trouble.value = ''
  for (const one of [...sending.value]) {
    const { key, at, step, file } = one
    try {
      await ask(
        api.POST('/api/stove/{batch_id}/photos', {
          params: { path: { batch_id: props.batch.id } },
          body: { key, at, step, file: '' },
          bodySerializer: () => {
            const form = new FormData()
            for (const [name, value] of Object.entries({ key, at, step: String(step) })) form.append(name, value)
            form.append('file', file, 'pot.jpg')
            return form
          },
        }),
      )
      drop(one.key)
      await acts.load(props.batch.id)
    } catch (error) {
      trouble.value = (error as Error).message
      if (error instanceof Refused) drop(one.key)
    }
  }
}
function drop(key: string): void {
  sending.value = sending.value.filter((one) => one.key !== key)
}
</script>

<template>
  <section class="photos" aria-label="Photographs">
    <label class="take"
      >Photograph<input
        type="file"
        accept="image/*"
        capture="environment"
        aria-label="Take a photograph of the pot"
        @change="take"
    /></label>
    <a v-for="one in batch.photos" :key="one.id" :href="`/api/photos/${one.id}`" target="_blank" rel="noopener">
      <img
        :src="`/api/photos/${one.id}`"
        :width="one.width"
        :height="one.height"
        :alt="`${batch.name} at ${timeOf(one.at)}, step ${one.step + 1}`"
        loading="lazy"
      />
    </a>
    <img v-for="one in sending" :key="one.key" class="going" :src="one.url" alt="On its way" />
    <p v-if="trouble" class="problem" role="alert">
      {{ trouble }} <NButton v-if="sending.length" @click="send">Send again</NButton>
    </p>
  </section>
</template>

<style scoped>
.photos {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}
.take {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
  padding: 0 16px;
  border: 1px solid var(--fog4);
  border-radius: 8px;
  background: var(--white);
  font-weight: 600;
  cursor: pointer;
}
.take:focus-within {
  outline: 3px solid var(--russet);
}
.take input {
  position: absolute;
  width: 1px;
  height: 1px;
  opacity: 0;
}
img {
  display: block;
  width: auto;
  height: 64px;
  border-radius: 8px;
}
.going {
  opacity: 0.5;
}
</style>
