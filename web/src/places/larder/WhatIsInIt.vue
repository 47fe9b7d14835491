<script setup lang="ts">
/** What a row of the larder is of and what is in it: allergens, animals, foods. Guests are served by it. */
import { NSelect } from 'naive-ui'
import type { Problem } from '@/api/client'
import ProblemLine from '@/parts/ProblemLine.vue'
import TextField from '@/parts/TextField.vue'
import { useSession } from '@/shell/session'

const props = defineProps<{
  row: Record<string, string>
  wrong: (column: string) => Problem | null
}>()
const emit = defineEmits<{ change: [column: string, text: string] }>()
const session = useSession()
const words = (column: string) => (props.row[column] ?? '').split(' ').filter(Boolean)
const options = (list: string[] | undefined) => (list ?? []).map((one) => ({ value: one, label: one }))
</script>

<template>
  <label>
    <span class="label">Allergens</span>
    <NSelect
      :value="words('allergens')"
      multiple
      :options="options(session.catalogue?.allergens)"
      aria-label="Allergens"
      @update:value="(list: string[]) => emit('change', 'allergens', list.join(' '))"
    />
  </label>
  <label>
    <span class="label">What of animals is in it (nothing: plant). Unsaid, no vegetarian or vegan gets it</span>
    <NSelect
      :value="words('animals')"
      multiple
      :options="options(session.catalogue?.animals)"
      aria-label="Of animals"
      @update:value="(list: string[]) => emit('change', 'animals', list.join(' '))"
    />
  </label>
  <ProblemLine :problem="wrong('animals')" />
  <TextField
    :value="row.of ?? ''"
    label="A kind of (ham, mushroom …)"
    name="What it is a kind of"
    :problem="wrong('of')"
    @change="emit('change', 'of', $event)"
  />
  <TextField
    :value="row.holds ?? ''"
    label="Made with (onion celery thyme …; - for nothing else). A guest “without onion” is served by this"
    name="What it is made with"
    :problem="wrong('holds')"
    @change="emit('change', 'holds', $event)"
  />
</template>
