<script setup lang="ts">
/** The record of temperatures and batches from day to day, to read and to print. */
import { NButton } from 'naive-ui'
import { onMounted, ref, watch } from 'vue'
import { api, ask, type Schemas } from '@/api/client'
import { dayAndTime, isoDay } from '@/parts/format'

const today = new Date()
const first = ref(isoDay(new Date(today.getTime() - 6 * 86_400_000)))
const last = ref(isoDay(today))
const lines = ref<Schemas['RecordLine'][]>([])
const trouble = ref('')
async function load(): Promise<void> {
  try {
    const query = { first: first.value, last: last.value, offset: -today.getTimezoneOffset() }
    lines.value = await ask(api.GET('/api/keeping/records', { params: { query } }))
    trouble.value = ''
  } catch (error) {
    trouble.value = (error as Error).message
  }
}
onMounted(load)
watch([first, last], load)
const print = () => window.print()
</script>

<template>
  <div class="place">
    <header>
      <h1>Record</h1>
      <label class="no-print"
        ><span class="label">from</span><input v-model="first" type="date" class="box" aria-label="First day"
      /></label>
      <label class="no-print"
        ><span class="label">to</span><input v-model="last" type="date" class="box" aria-label="Last day"
      /></label>
      <NButton size="large" class="no-print" @click="print">Print</NButton>
    </header>
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    <p v-else-if="!lines.length">Nothing happened in these days.</p>
    <div v-else class="sheet scroll" tabindex="0" role="region" aria-label="The record">
      <table class="grid">
        <thead>
          <tr>
            <th scope="col">when</th>
            <th scope="col">batch</th>
            <th scope="col">what</th>
            <th scope="col">value</th>
            <th scope="col">rule</th>
            <th scope="col">met</th>
            <th scope="col">by</th>
            <th scope="col">source</th>
            <th scope="col">corrected since</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(line, n) in lines" :key="n">
            <td>
              {{ dayAndTime(line.at) }}
              <span v-if="line.written_at" class="quiet">written {{ dayAndTime(line.written_at) }}</span>
            </td>
            <td>{{ line.code }} {{ line.name }}</td>
            <td>{{ line.what }}</td>
            <td>{{ line.value }}</td>
            <td>{{ line.rule }}</td>
            <td>{{ line.met }}</td>
            <td>
              {{ line.by }} <span v-if="line.session" class="quiet">signed in: {{ line.session }}</span>
            </td>
            <td>{{ line.source }}</td>
            <td>{{ line.corrected }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <p class="quiet">
      Nothing in it is rewritten: what was wrong stands here with what it was corrected to. Temperatures were measured,
      never reckoned: “met” and “missed” are proved by the readings beside them, everything else is “not shown”.
    </p>
  </div>
</template>

<style scoped>
.place {
  padding: 16px 20px;
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px 16px;
  margin-bottom: 12px;
}
h1 {
  font-size: 28px;
}
.box {
  min-height: 44px;
}
.scroll {
  overflow-x: auto;
}
td,
th {
  padding: 6px 10px;
  text-align: left;
}
</style>
