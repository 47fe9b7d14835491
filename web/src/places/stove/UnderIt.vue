<script setup lang="ts">
/** The scale under this pot and the probe in it: put there and taken away by one press. */
import { NButton } from 'naive-ui'
import { onMounted, ref, watch } from 'vue'
import { api, ask, type Schemas } from '@/api/client'
import { temperature } from '@/parts/ways'
import { useActs } from '@/shell/acts'
import { minutes, scaleReads } from '@/parts/format'

const props = defineProps<{ batch: Schemas['BatchOut']; devices: Schemas['DeviceOut'][] }>()
const acts = useActs()
const all = ref<Schemas['DeviceOut'][]>([])
const trouble = ref('')
async function look(): Promise<void> {
  const found = await ask(api.GET('/api/devices')).catch(() => [])
  all.value = found.filter((one) => one.kind !== 'printer')
}
onMounted(look)
watch(() => props.devices.length, look)
async function put(device: Schemas['DeviceOut'], under: boolean): Promise<void> {
  try {
    const body = { batch_id: under ? props.batch.id : null }
    await ask(api.PUT('/api/devices/{device_id}', { params: { path: { device_id: device.id } }, body }))
    trouble.value = ''
    await acts.load(props.batch.id)
    await look()
  } catch (error) {
    trouble.value = (error as Error).message
  }
}
const here = (device: Schemas['DeviceOut']) => props.devices.some((one) => one.id === device.id)
const inUnits = (device: Schemas['DeviceOut'], value: number) =>
  device.kind === 'scale' ? scaleReads(value) : temperature(value, 1)
const reads = (device: Schemas['DeviceOut']) => {
  const value = props.devices.find((one) => one.id === device.id)?.value
  return value === null || value === undefined ? '' : inUnits(device, value)
}
/** What it read last where it was before is that pot's, and told as such. */
const before = (device: Schemas['DeviceOut']) => {
  const last = here(device) && !reads(device) ? device.read_before : null
  if (!last) return ''
  const ago = Math.max(0, Math.round((Date.now() - Date.parse(last.at)) / 60_000))
  return `${inUnits(device, last.value)} in ${last.of}, ${ago < 1 ? 'just now' : minutes(ago) + ' ago'}`
}
</script>

<template>
  <section v-if="all.length" class="under" aria-label="Scale and probe">
    <NButton
      v-for="device in all"
      :key="device.id"
      size="large"
      :type="here(device) ? 'primary' : 'default'"
      :secondary="here(device)"
      :aria-pressed="here(device)"
      @click="put(device, !here(device))"
    >
      {{ device.name }}<b v-if="here(device) && reads(device)">&nbsp;{{ reads(device) }}</b>
    </NButton>
    <p v-for="device in all.filter(before)" :key="`b${device.id}`" class="quiet">
      {{ device.name }} has read nothing here yet. Last: {{ before(device) }}.
    </p>
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
  </section>
</template>

<style scoped>
.under {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
