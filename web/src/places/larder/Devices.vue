<script setup lang="ts">
/** Scales and probes that send what they read, printers that fetch labels: each has a token, told once. */
import { NButton, NCheckbox } from 'naive-ui'
import { reactive, ref } from 'vue'
import { api, ask, type Schemas } from '@/api/client'
import ChoiceField from '@/parts/ChoiceField.vue'
import ProblemLine from '@/parts/ProblemLine.vue'
import { temperature } from '@/parts/ways'
import { useForm } from '@/shell/form'
import { useList } from '@/shell/list'
import { scaleReads } from '@/parts/format'

const devices = ref<Schemas['DeviceOut'][]>([])
const { trouble, load, tell } = useList(async () => {
  devices.value = await ask(api.GET('/api/devices'))
})
const kinds = [
  { value: 'scale', label: 'a scale' },
  { value: 'probe', label: 'a probe' },
  { value: 'printer', label: 'a label printer' },
]
const form = reactive({ name: '', kind: 'scale', simulated: false })
const made = ref<Schemas['DeviceMade'] | null>(null)
const { trouble: refused, busy, run, problemAt } = useForm()
const add = () =>
  run(async () => {
    made.value = await ask(api.POST('/api/devices', { body: { ...form } }))
    Object.assign(form, { name: '', simulated: false })
    await load()
  })
const forget = (device: Schemas['DeviceOut']) =>
  tell(async () => {
    if (made.value?.id === device.id) made.value = null
    await ask(api.DELETE('/api/devices/{device_id}', { params: { path: { device_id: device.id } } }))
  })
/** For one that was stopped, or whose token was lost: told once, as the first was. */
const renew = (device: Schemas['DeviceOut']) =>
  tell(async () => {
    const path = { device_id: device.id }
    made.value = await ask(api.POST('/api/devices/{device_id}/token', { params: { path } }))
  })
const asking = ref<number | null>(null)
const naming = ref<number | null>(null)
const called = ref('')
const rename = (device: Schemas['DeviceOut']) =>
  tell(async () => {
    const body = { name: called.value }
    await ask(api.PUT('/api/devices/{device_id}/name', { params: { path: { device_id: device.id } }, body }))
    naming.value = null
  })
const reads = (device: Schemas['DeviceOut']) =>
  device.kind === 'printer'
    ? 'fetches its labels'
    : device.value === null
      ? 'has read nothing yet'
      : `read ${device.kind === 'scale' ? scaleReads(device.value) : temperature(device.value, 1)}`
</script>

<template>
  <section class="devices">
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    <p class="quiet">
      Anything that can send HTTP can be a scale or a probe. It sends its readings with its token; put it under a pot at
      the stove. How they are written: docs/formats/reading.schema.json.
    </p>
    <ul v-if="devices.length">
      <li v-for="device in devices" :key="device.id">
        <b>{{ device.name }}</b>
        <span
          >{{ device.kind }}{{ device.simulated ? ', simulated' : '' }}, {{ reads(device)
          }}{{ device.batch_id ? ', at a pot' : ''
          }}{{ device.made_by_name ? `, entered by ${device.made_by_name}` : '' }}</span
        >
        <span v-if="device.stopped_at" class="warning"
          >Stopped: who entered it was let go. A new token lets it in again.</span
        >
        <template v-if="asking === device.id">
          <NButton type="error" @click="forget(device)">Forget it and its token</NButton>
          <NButton @click="asking = null">Keep it</NButton>
        </template>
        <form v-else-if="naming === device.id" @submit.prevent="rename(device)">
          <input v-model="called" class="box" maxlength="60" :aria-label="`New name of ${device.name}`" />
          <NButton attr-type="submit">Call it so</NButton>
          <NButton @click="naming = null">As it was</NButton>
        </form>
        <template v-else>
          <NButton @click="((naming = device.id), (called = device.name))">Rename</NButton>
          <NButton @click="renew(device)">New token</NButton>
          <NButton @click="asking = device.id">Forget</NButton>
        </template>
      </li>
    </ul>
    <p v-else>None yet. Most kitchens never weigh a pot: levels and spoons do as well.</p>
    <div v-if="made" class="token" role="status">
      <p>
        The token of <b>{{ made.name }}</b>. It is told this once:
      </p>
      <code>{{ made.token }}</code>
    </div>
    <form @submit.prevent="add">
      <label
        ><span class="label">What you call it</span
        ><input v-model="form.name" class="box" maxlength="60" aria-label="Name of the scale or probe"
      /></label>
      <ChoiceField label="It is" :value="form.kind" :options="kinds" @change="form.kind = $event" />
      <NCheckbox v-model:checked="form.simulated">simulated: its clock may run ahead</NCheckbox>
      <NButton type="primary" attr-type="submit" :loading="busy">Add it</NButton>
      <ProblemLine :problem="problemAt('name')" subject="Its name" />
      <p v-if="refused" class="problem" role="alert">{{ refused }}</p>
    </form>
  </section>
</template>

<style scoped>
.devices {
  display: flex;
  flex-direction: column;
  gap: 14px;
  max-width: 860px;
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
li,
form {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px 16px;
}
li {
  align-items: center;
  min-height: 52px;
  border-bottom: 1px solid var(--fog3);
}
li span {
  flex: 1;
}
.token {
  padding: 12px 16px;
  border: 2px solid var(--russet);
  border-radius: 10px;
  background: var(--white);
}
code {
  font-size: 18px;
  user-select: all;
  overflow-wrap: anywhere;
}
</style>
