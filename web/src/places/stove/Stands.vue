<script setup lang="ts">
/** Which ring it stands on, and whose it is. */
import { NSelect } from 'naive-ui'
import { computed, onMounted, ref } from 'vue'
import { api, ask, type Schemas } from '@/api/client'

const props = defineProps<{ ring: string; cook: string; name: string }>()
const emit = defineEmits<{ stands: [ring: string, cook: string] }>()
const hob = ref<Schemas['Hob'] | null>(null)
onMounted(async () => {
  hob.value = await ask(api.GET('/api/stove/hob')).catch(() => null)
})
const listed = (names: string[], chosen: string, none: string) => [
  { value: '', label: none },
  ...[...new Set([...names, ...(chosen ? [chosen] : [])])].map((one) => ({ value: one, label: one })),
]
const rings = computed(() =>
  listed(
    (hob.value?.rings ?? []).map((one) => one.name),
    props.ring,
    'no ring',
  ),
)
const cooks = computed(() => listed(hob.value?.cooks ?? [], props.cook, 'nobody yet'))
</script>

<template>
  <span class="stands">
    <NSelect
      :value="ring"
      :options="rings"
      :consistent-menu-width="false"
      :virtual-scroll="false"
      :aria-label="`Ring of ${name}`"
      @update:value="emit('stands', $event, cook)"
    />
    <NSelect
      v-if="cooks.length > 1"
      :value="cook"
      :options="cooks"
      :consistent-menu-width="false"
      :virtual-scroll="false"
      :aria-label="`Whose ${name} is`"
      @update:value="emit('stands', ring, $event)"
    />
  </span>
</template>

<style scoped>
.stands {
  display: flex;
  gap: 6px;
}
.stands > * {
  width: 132px;
}
</style>
