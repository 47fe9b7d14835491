<script setup lang="ts">
/** The kitchen itself: who belongs to it, this device, your sign-in, copies of everything. */
import { useSession } from '@/shell/session'
import { useList } from '@/shell/list'
import { api, ask, type Schemas } from '@/api/client'
import { ref } from 'vue'
import Copies from './Copies.vue'
import People from './People.vue'
import ThisDevice from './ThisDevice.vue'
import WaysOfWriting from './WaysOfWriting.vue'
import You from './You.vue'

const session = useSession()
const people = ref<Schemas['People'] | null>(null)
const { trouble, load } = useList(async () => {
  people.value = await ask(api.GET('/api/people'))
})
async function changed(): Promise<void> {
  await session.reload()
  await load()
}
</script>

<template>
  <div class="kitchen">
    <h1>{{ session.who?.kitchen }}</h1>
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    <div v-if="people" class="parts">
      <div class="part">
        <ThisDevice @changed="changed" />
        <People :people="people" @changed="load" />
        <WaysOfWriting />
      </div>
      <div v-if="!session.who?.shared" class="part">
        <You :people="people" @changed="changed" />
        <Copies v-if="people.may" />
      </div>
    </div>
  </div>
</template>

<style scoped>
.kitchen {
  padding: 18px;
  max-width: 1280px;
}
h1 {
  margin-bottom: 14px;
  font-size: 32px;
}
.parts {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 420px), 1fr));
  gap: 14px;
  align-items: start;
}
.part {
  display: grid;
  gap: 14px;
  min-width: 0;
}
.parts :deep(section) {
  display: flex;
  flex-direction: column;
  align-items: stretch;
  gap: 12px;
  padding: 16px 18px;
}
.parts :deep(h2) {
  font-size: 21px;
}
.parts :deep(label) {
  display: flex;
  flex-direction: column;
  gap: 4px;
}
.parts :deep(.actions) {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.parts :deep(.quiet) {
  color: var(--ink2);
}
</style>
