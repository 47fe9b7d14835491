<script setup lang="ts">
/** Which ring it stands on, in which pan, and whose it is. `pan`: none is asked for where it is empty. */
import { NSelect } from 'naive-ui'
import { computed, onMounted, ref } from 'vue'
import { api, ask, type Schemas } from '@/api/client'

const props = defineProps<{ ring: string; pan: string; cook: string; name: string }>()
const emit = defineEmits<{ stands: [change: { ring?: string; pan?: string; cook?: string }] }>()
const hob = ref<Schemas['Hob'] | null>(null)
onMounted(async () => {
  hob.value = await ask(api.GET('/api/stove/hob')).catch(() => null)
})
const listed = (names: string[], chosen: string, none?: string) => [
  ...(none === undefined ? [] : [{ value: '', label: none }]),
  ...[...new Set([...names, ...(chosen ? [chosen] : [])])].map((one) => ({ value: one, label: one })),
]
const rings = computed(() =>
  listed(
    (hob.value?.rings ?? []).map((one) => one.name),
    props.ring,
    'no ring',
  ),
)
const pans = computed(() => listed(hob.value?.pans ?? [], props.pan))
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
      @update:value="emit('stands', { ring: $event })"
    />
    <NSelect
      v-if="pan && pans.length > 1"
      :value="pan"
      :options="pans"
      :consistent-menu-width="false"
      :virtual-scroll="false"
      :aria-label="`Pan of ${name}`"
      @update:value="emit('stands', { pan: $event })"
    />
    <NSelect
      v-if="cooks.length > 1"
      :value="cook"
      :options="cooks"
      :consistent-menu-width="false"
      :virtual-scroll="false"
      :aria-label="`Whose ${name} is`"
      @update:value="emit('stands', { cook: $event })"
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
@media (max-width: 480px) {
  .stands {
    width: 100%;
  }
  .stands > * {
    flex: 1;
    width: 0;
  }
}
</style>
