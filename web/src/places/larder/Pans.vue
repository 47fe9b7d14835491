<script setup lang="ts">
/** The kitchen's own pans and rings. */
import { NButton, NInput, NSelect, NSwitch, useMessage } from 'naive-ui'
import { computed, reactive } from 'vue'
import { api, ask } from '@/api/client'
import { millilitres, scaleReads } from '@/parts/format'
import { useForm } from '@/shell/form'
import { useOffList } from '@/shell/offList'
import { useSession } from '@/shell/session'
import ProblemLine from '@/parts/ProblemLine.vue'

const session = useSession()
const message = useMessage()
const offList = useOffList()
const emptyPan = () => ({
  name: '',
  shape: 'straight',
  diameter_cm: '',
  width_cm: '',
  depth_cm: '',
  tare_g: '',
  count: '1',
  reactive: false,
  heavy: true,
})
const pan = reactive(emptyPan())
const shapes = [
  { value: 'straight', label: 'straight sides' },
  { value: 'sloped', label: 'sloped sides' },
  { value: 'bowl', label: 'bowl' },
  { value: 'tray', label: 'tray' },
  { value: 'shell', label: 'shell' },
  { value: 'dish', label: 'small dish' },
]
const panForm = useForm()
const measures = computed(
  () =>
    [
      ...(pan.shape === 'tray'
        ? ([
            { key: 'diameter_cm', label: 'Long inside, cm' },
            { key: 'width_cm', label: 'Wide inside, cm' },
          ] as const)
        : ([{ key: 'diameter_cm', label: 'Across the rim, cm' }] as const)),
      { key: 'depth_cm', label: 'Deep inside, cm' },
      { key: 'tare_g', label: 'Empty weight, g' },
      { key: 'count', label: 'How many such' },
    ] as { key: 'diameter_cm' | 'width_cm' | 'depth_cm' | 'tare_g' | 'count'; label: string }[],
)

const addPan = () =>
  panForm.run(async () => {
    await ask(
      api.POST('/api/larder/pans', {
        body: {
          ...pan,
          depth_cm: pan.depth_cm || null,
          tare_g: pan.tare_g || 0,
          width_cm: pan.shape === 'tray' ? pan.width_cm || null : null,
        },
      }),
    )
    Object.assign(pan, emptyPan())
    await session.reload()
  })
/** What was taken away is put back as it was. */
async function again(bring: () => Promise<unknown>): Promise<void> {
  try {
    await bring()
    await session.reload()
  } catch (error) {
    message.error((error as Error).message)
  }
}
async function removePan(id: number): Promise<void> {
  const gone = session.pans.find((p) => p.id === id)
  try {
    await ask(api.DELETE('/api/larder/pans/{pan_id}', { params: { path: { pan_id: id } } }))
    await session.reload()
    if (gone) {
      offList(gone.name, () => again(() => ask(api.POST('/api/larder/pans', { body: gone }))))
    }
  } catch (error) {
    message.error((error as Error).message)
  }
}

const burner = reactive({ name: '', kind: 'gas', watts: '', takes_cm: '' })
const kinds = ['gas', 'electric', 'induction'].map((value) => ({ value, label: value }))
const ringForm = useForm()
const addBurner = () =>
  ringForm.run(async () => {
    await ask(api.POST('/api/larder/burners', { body: { ...burner, takes_cm: burner.takes_cm || null } }))
    Object.assign(burner, { name: '', watts: '', takes_cm: '' })
    await session.reload()
  })
async function removeBurner(id: number): Promise<void> {
  const gone = session.burners.find((b) => b.id === id)
  try {
    await ask(api.DELETE('/api/larder/burners/{burner_id}', { params: { path: { burner_id: id } } }))
    await session.reload()
    if (gone) {
      offList(gone.name, () => again(() => ask(api.POST('/api/larder/burners', { body: gone }))))
    }
  } catch (error) {
    message.error((error as Error).message)
  }
}
</script>

<template>
  <div class="pans">
    <section>
      <h2>Your pans</h2>
      <p class="quiet">
        The pan decides how fast a sauce boils down. A sheet keeps the measures of the pan it was made for.
      </p>
      <ul>
        <li v-for="p in session.pans" :key="p.id" class="sheet">
          <span
            ><b>{{ p.count > 1 ? `${p.count} × ` : '' }}{{ p.name }}</b
            ><br />{{ p.diameter_cm }} cm {{ p.width_cm ? `by ${p.width_cm}` : 'across' }}, {{ p.depth_cm }} deep,
            {{ p.shape }}<template v-if="p.reactive">, bare metal</template></span
          >
          <span class="n"
            >{{ millilitres(p.capacity_ml) }}<br /><span class="quiet">{{
              p.tare_g ? scaleReads(p.tare_g) : 'not weighed'
            }}</span></span
          >
          <NButton quaternary :aria-label="`Take ${p.name} away`" @click="removePan(p.id)">×</NButton>
        </li>
      </ul>
      <form class="sheet" @submit.prevent="addPan">
        <h3>Add a pan</h3>
        <label>
          <span class="label">What you call it</span>
          <NInput v-model:value="pan.name" placeholder="" :input-props="{ 'aria-label': 'Pan name' }" />
          <ProblemLine :problem="panForm.problemAt('name')" />
        </label>
        <label>
          <span class="label">Shape</span>
          <NSelect v-model:value="pan.shape" :options="shapes" aria-label="Pan shape" />
        </label>
        <label v-for="m in measures" :key="m.key">
          <span class="label">{{ m.label }}</span>
          <NInput
            v-model:value="pan[m.key]"
            placeholder=""
            :input-props="{ inputmode: 'decimal', 'aria-label': m.label }"
          />
          <ProblemLine :problem="panForm.problemAt(m.key)" />
        </label>
        <label class="switch"
          ><NSwitch v-model:value="pan.reactive" aria-label="Bare metal" /> bare aluminium or iron: not for wine, lemon,
          yolk</label
        >
        <label class="switch"><NSwitch v-model:value="pan.heavy" aria-label="Heavy bottom" /> heavy bottom</label>
        <p v-if="panForm.trouble.value" class="problem" role="alert">{{ panForm.trouble.value }}</p>
        <NButton type="primary" attr-type="submit">Add the pan</NButton>
      </form>
    </section>
    <section>
      <h2>Your rings</h2>
      <ul>
        <li v-for="b in session.burners" :key="b.id" class="sheet">
          <span
            ><b>{{ b.name }}</b
            ><br />{{ b.kind }}<template v-if="b.takes_cm">, pans up to {{ b.takes_cm }} cm</template></span
          >
          <span class="n">{{ b.watts }} W</span>
          <NButton quaternary :aria-label="`Take ${b.name} away`" @click="removeBurner(b.id)">×</NButton>
        </li>
      </ul>
      <form class="sheet" @submit.prevent="addBurner">
        <h3>Add a ring</h3>
        <label>
          <span class="label">What you call it</span>
          <NInput v-model:value="burner.name" placeholder="" :input-props="{ 'aria-label': 'Ring name' }" />
          <ProblemLine :problem="ringForm.problemAt('name')" />
        </label>
        <label>
          <span class="label">Kind</span>
          <NSelect v-model:value="burner.kind" :options="kinds" aria-label="Ring kind" />
        </label>
        <label>
          <span class="label">Rated power, W</span>
          <NInput
            v-model:value="burner.watts"
            placeholder=""
            :input-props="{ inputmode: 'decimal', 'aria-label': 'Rated power, W' }"
          />
          <ProblemLine :problem="ringForm.problemAt('watts')" />
        </label>
        <label>
          <span class="label">Takes pans up to, cm (nothing: any)</span>
          <NInput
            v-model:value="burner.takes_cm"
            placeholder=""
            :input-props="{ inputmode: 'decimal', 'aria-label': 'Takes pans up to, cm' }"
          />
          <ProblemLine :problem="ringForm.problemAt('takes_cm')" />
        </label>
        <p v-if="ringForm.trouble.value" class="problem" role="alert">{{ ringForm.trouble.value }}</p>
        <NButton type="primary" attr-type="submit">Add the ring</NButton>
      </form>
    </section>
  </div>
</template>

<style scoped>
.pans {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(300px, 460px));
  gap: 8px 28px;
}
section {
  display: flex;
  flex-direction: column;
  gap: 8px;
}
h2 {
  font-size: 24px;
  line-height: 44px;
}
.n {
  text-align: right;
  white-space: nowrap;
}
ul {
  display: flex;
  flex-direction: column;
  gap: 8px;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 1fr auto auto;
  align-items: center;
  gap: 8px;
  padding: 8px 4px 8px 14px;
  font-size: 15px;
}
.switch {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 44px;
}
form {
  display: flex;
  flex-direction: column;
  gap: 10px;
  padding: 14px;
}
</style>
