<script setup lang="ts">
/** Photographs of a pot: taken here, made small here, kept until the server has them. */
import { NButton } from 'naive-ui'
import { computed } from 'vue'
import { timeOf } from '@/parts/format'
import type { Schemas } from '@/api/client'
import { usePhotos } from '@/shell/photos'
import { smaller } from './smaller'

const props = defineProps<{ batch: Schemas['BatchOut'] }>()
const photos = usePhotos()
/** On their way: shown already, sent again until they are there. */
const sending = computed(() => photos.of(props.batch.id))
const trouble = computed(() => photos.troubles.get(props.batch.id))
async function take(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const { id, step } = props.batch
  for (const file of input.files ?? []) photos.take(id, step, await smaller(file))
  input.value = ''
  await photos.send()
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
      {{ trouble }} <NButton v-if="sending.length" @click="photos.send()">Send again</NButton>
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
