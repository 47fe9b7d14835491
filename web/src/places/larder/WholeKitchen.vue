<script setup lang="ts">
/** The whole kitchen as one file, and a file into an empty kitchen. */
import { NButton, useMessage } from 'naive-ui'
import { ref } from 'vue'
import { api, ask, type Schemas } from '@/api/client'
import { useList } from '@/shell/list'

const message = useMessage()
const about = ref<Schemas['WholeKitchen'] | null>(null)
const busy = ref(false)
const refused = ref('')
const taken = ref<Record<string, number> | null>(null)
const { trouble, load } = useList(async () => {
  about.value = await ask(api.GET('/api/whole'))
})
async function takeIn(event: Event): Promise<void> {
  const field = event.target as HTMLInputElement
  const file = field.files?.[0]
  if (!file) return
  busy.value = true
  refused.value = ''
  try {
    const made = await ask(
      api.POST('/api/whole', {
        body: { file: '' },
        bodySerializer: () => {
          const form = new FormData()
          form.append('file', file, file.name)
          return form
        },
      }),
    )
    taken.value = made.counts
    message.success('Taken in, all of it.')
    await load()
  } catch (error) {
    refused.value = (error as Error).message
  } finally {
    busy.value = false
    field.value = ''
  }
}
const names: Record<string, string> = {
  sauces: 'sauces',
  versions: 'versions of them',
  dishes: 'dishes',
  services: 'services',
  batches: 'batches',
  kept: 'things in the fridge',
  photos: 'photographs',
  pans: 'pans',
  ingredients: 'ingredients of your own',
}
</script>

<template>
  <div class="whole">
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    <section class="sheet">
      <h2>Take it with you</h2>
      <p>
        Everything of {{ about?.name ?? 'this kitchen' }} in one file of open formats: sauces with all their versions,
        dishes, services, the larder, batches with their readings and photographs, what is in the fridge. Passwords and
        devices are not in it.
      </p>
      <a class="go" href="/api/whole/kitchen.zip" download>The whole kitchen (.zip)</a>
    </section>
    <section class="sheet">
      <h2>Take one in</h2>
      <template v-if="about?.empty">
        <p>Such a file into this kitchen, which is empty: all of it, or, where anything is wrong with it, nothing.</p>
        <label class="go" :class="{ busy }">
          {{ busy ? 'Looking it over…' : 'Pick the file' }}
          <input
            type="file"
            accept=".zip,application/zip"
            :disabled="busy"
            aria-label="File of a whole kitchen"
            @change="takeIn"
          />
        </label>
      </template>
      <p v-else-if="taken" class="good-news">
        Taken in:
        <template v-for="(name, key) in names" :key="key"
          ><span v-if="taken[key]" class="count">{{ name }} {{ taken[key] }}</span></template
        >
      </p>
      <p v-else>
        A whole kitchen goes into an empty one, and something was entered here already. A new kitchen beside this one,
        with a sign-in of its own: <code>make import-kitchen FILE=… COOK=…</code>
      </p>
      <p v-if="refused" class="problem" role="alert">{{ refused }} Nothing was changed.</p>
      <NButton v-if="refused" size="small" @click="refused = ''">I see</NButton>
    </section>
  </div>
</template>

<style scoped>
.whole {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(300px, 1fr));
  gap: 12px;
  max-width: 1000px;
}
section {
  display: flex;
  flex-direction: column;
  align-items: start;
  gap: 10px;
  padding: 14px 18px;
}
h2 {
  font-size: 21px;
}
.go {
  position: relative;
  display: flex;
  align-items: center;
  min-height: 56px;
  padding: 0 22px;
  border: 2px solid var(--ink);
  border-radius: 10px;
  font-size: 18px;
  font-weight: 700;
  text-decoration: none;
  cursor: pointer;
}
.go:focus-within {
  outline: 3px solid var(--russet);
}
.go input {
  position: absolute;
  inset: 0;
  opacity: 0;
  cursor: pointer;
}
.busy {
  opacity: 0.6;
}
.count {
  margin-right: 10px;
}
.problem {
  font-size: 16px;
}
</style>
