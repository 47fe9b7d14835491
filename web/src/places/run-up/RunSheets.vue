<script setup lang="ts">
/** Run sheets to print or to read at arm's length: a page a cook. */
import { useTitle } from '@vueuse/core'
import { NButton } from 'naive-ui'
import { computed, onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, ask, type Schemas } from '@/api/client'
import { day } from '@/parts/format'
import { clockOf, minutesOf } from './run-up'

const props = defineProps<{ id: number }>()
const router = useRouter()
const whole = ref<Schemas['RunUpOut'] | null>(null)
const trouble = ref('')
const sheets = computed(() => whole.value?.planned?.sheets ?? [])
const print = () => window.print()
useTitle('Run sheets · Kestrel Fog')
onMounted(async () => {
  try {
    whole.value = await ask(api.GET('/api/run-ups/{run_up_id}', { params: { path: { run_up_id: props.id } } }))
  } catch (error) {
    trouble.value = (error as Error).message
  }
})
const rows = (sheet: Schemas['RunSheet']) => sheet.lines
</script>

<template>
  <div class="sheets">
    <div class="no-print tools">
      <NButton @click="router.push(`/run-up/${id}`)">Back</NButton>
      <NButton type="primary" @click="print()">Print</NButton>
    </div>
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    <p v-if="whole && !sheets.length" class="dashed">Nothing is planned yet.</p>
    <article v-for="sheet in sheets" :key="sheet.cook">
      <header>
        <h1>{{ sheet.cook }}</h1>
        <p>{{ whole!.name }}, {{ day(whole!.date) }}</p>
      </header>
      <table>
        <thead>
          <tr>
            <th>at</th>
            <th>what</th>
            <th>how much</th>
            <th>look for</th>
            <th>where</th>
          </tr>
        </thead>
        <tbody>
          <template v-for="(line, n) in rows(sheet)" :key="n">
            <tr v-if="line.at < 0 ? n === 0 : n > 0 && rows(sheet)[n - 1]!.at < 0" class="day">
              <td colspan="5">{{ line.at < 0 ? 'before midnight, or the day before' : 'the day' }}</td>
            </tr>
            <tr :class="{ touch: line.touch }">
              <td class="at">{{ clockOf(line.at) }}</td>
              <td>
                <b>{{ line.what }}</b>
                <small>{{
                  [line.do === line.what ? '' : line.do, line.minutes > 0 ? minutesOf(line.minutes) : '']
                    .filter(Boolean)
                    .join(', ')
                }}</small>
              </td>
              <td>{{ line.amount }}</td>
              <td>{{ line.cue }}</td>
              <td>{{ line.where }}</td>
            </tr>
          </template>
        </tbody>
      </table>
    </article>
  </div>
</template>

<style scoped>
.sheets {
  max-width: 1000px;
  padding: 14px 18px 30px;
}
.tools {
  display: flex;
  gap: 8px;
}
article {
  margin-top: 18px;
  break-after: page;
}
header {
  display: flex;
  align-items: baseline;
  gap: 16px;
}
h1 {
  font-size: 30px;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th {
  font-size: 13px;
  text-align: left;
  color: var(--ink2);
}
td {
  padding: 6px 10px 6px 0;
  border-top: 1px solid var(--fog3);
  vertical-align: top;
}
.at {
  font: 700 26px/1.1 var(--text);
  white-space: nowrap;
}
.touch .at {
  font-size: 18px;
}
td b {
  display: block;
  font-size: 17px;
}
small {
  color: var(--ink2);
}
.day td {
  padding-top: 12px;
  font: 600 16px var(--display);
}
tr {
  break-inside: avoid;
}
@media (max-width: 620px) {
  th:nth-child(n + 4),
  td:nth-child(n + 4) {
    display: none;
  }
  .day td {
    display: table-cell;
  }
}
</style>
