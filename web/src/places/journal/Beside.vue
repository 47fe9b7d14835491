<script setup lang="ts">
/** Two batches beside each other: what went in, how long, what came out, what was said. */
import { NButton } from 'naive-ui'
import { computed, ref } from 'vue'
import { RouterLink } from 'vue-router'
import { api, ask, type Schemas } from '@/api/client'
import { day } from '@/parts/format'
import ThicknessRibbon from '@/parts/ThicknessRibbon.vue'
import { useList } from '@/shell/list'
import JournalTabs from './JournalTabs.vue'

const props = defineProps<{ one: number; other: number }>()
const told = ref<Schemas['BatchesBeside'] | null>(null)
const only = ref(false)
const { trouble, load } = useList(async () => {
  const query = { one: props.one, other: props.other }
  told.value = await ask(api.GET('/api/journal/beside', { params: { query } }))
})
const lines = computed(() => (told.value?.lines ?? []).filter((line) => !only.value || line.differs))
const sides = computed(() => (told.value ? [told.value.one, told.value.other] : []))
</script>

<template>
  <div class="place">
    <JournalTabs />
    <p v-if="trouble" class="problem" role="alert">
      {{ trouble }} <NButton size="small" @click="load">Try again</NButton>
    </p>
    <template v-if="told">
      <div class="scroll sheet">
        <table class="grid">
          <thead>
            <tr>
              <th scope="col">
                <label class="only"><input v-model="only" type="checkbox" />only what differs</label>
              </th>
              <th v-for="side in sides" :key="side.id" scope="col">
                <RouterLink :to="`/stove/${side.batch_id}`">{{ side.name }}</RouterLink>
                <span
                  >{{ day(side.made_at) }}<template v-if="side.cook">, {{ side.cook }}</template></span
                >
                <ThicknessRibbon
                  slim
                  :viscosity="side.plan.viscosity_pa_s"
                  :low="side.plan_low_pa_s"
                  :high="side.plan_high_pa_s"
                  :ticks="side.actual.viscosity_pa_s ? [side.actual.viscosity_pa_s] : []"
                />
              </th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(line, n) in lines" :key="n" :class="{ differs: line.differs }">
              <th scope="row">{{ line.what }}</th>
              <td>{{ line.one || '–' }}</td>
              <td>{{ line.other || '–' }}<span v-if="line.differs" class="mark"> ≠</span></td>
            </tr>
          </tbody>
        </table>
      </div>
      <p v-if="only && !lines.length">Nothing differs but the day.</p>
    </template>
  </div>
</template>

<style scoped>
.place {
  max-width: 1100px;
  padding: 16px 20px 24px;
}
table {
  table-layout: fixed;
  min-width: 620px;
}
thead th:first-child {
  width: 200px;
}
thead th {
  vertical-align: bottom;
}
thead th a {
  display: block;
  font: 600 19px var(--display);
  color: var(--ink);
}
thead th span {
  display: block;
  font-weight: 400;
}
.only {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 44px;
}
.only input {
  width: 22px;
  height: 22px;
}
td {
  font-size: 18px;
}
tr.differs td {
  background: var(--butter-wash);
  font-weight: 700;
}
.mark {
  color: var(--ink2);
}
tbody th {
  font-weight: 600;
}
</style>
