<script setup lang="ts">
/** Plates that are finished when called: what stands ready, what comes together, and the calls. */
import { NButton } from 'naive-ui'
import { computed, ref } from 'vue'
import { clockOf, minutesOf, type RunUpOpen } from './run-up'

const props = defineProps<{ open: RunUpOpen }>()
const planned = computed(() => props.open.whole.value!.planned!)
const calls = computed(() => [...planned.value.calls].sort((a, b) => a.begin - b.begin || a.number - b.number))
const lines = computed(() => planned.value.to_order)
const table = ref('')
const portions = ref(1)
async function call(line: number): Promise<void> {
  if (await props.open.call(line, portions.value, table.value)) portions.value = 1
}
const next = computed(() => calls.value.find((one) => one.begin >= props.open.now.value - 1) ?? calls.value[0] ?? null)
</script>

<template>
  <section class="calls" aria-label="Finished when called">
    <div class="board">
      <header>
        <h2>Called</h2>
        <label>table <input v-model="table" class="box" maxlength="20" aria-label="Table" /></label>
        <label
          >plates
          <NButton aria-label="One plate fewer" :disabled="portions < 2" @click="portions--">−</NButton>
          <b aria-live="polite">{{ portions }}</b>
          <NButton aria-label="One plate more" :disabled="portions > 59" @click="portions++">+</NButton></label
        >
      </header>
      <div class="dishes">
        <NButton v-for="line in lines" :key="line.line" type="primary" size="large" @click="call(line.line)">{{
          line.dish
        }}</NButton>
      </div>
      <p v-if="!calls.length" class="dashed">
        Press a dish as it is called. It says when to begin so that its table goes out together.
      </p>
      <ol>
        <li v-for="one in calls" :key="one.number" :class="{ first: one === next }">
          <p class="at">
            {{ clockOf(one.begin) }}<small>out {{ clockOf(one.out) }}</small>
          </p>
          <div>
            <b>{{ one.portions }} × {{ one.dish }}</b>
            <span v-if="one.table"> · table {{ one.table }}</span>
            <small>{{
              one.steps
                .map((step) => `${clockOf(step.start)} ${step.name}${step.cook ? `, ${step.cook}` : ''}`)
                .join(' · ')
            }}</small>
            <small v-if="one.waits_min > 0.5"
              >{{ minutesOf(one.waits_min) }} more than alone: hands, rings or pans are taken</small
            >
          </div>
          <NButton @click="open.callGone(one.number, true)">Gone out</NButton>
        </li>
      </ol>
    </div>
    <div class="ready">
      <article v-for="line in lines" :key="line.line" class="sheet">
        <h3>{{ line.dish }}</h3>
        <p class="big">{{ minutesOf(line.alone_min) }}<small>from call to pass</small></p>
        <p>
          <template v-for="(some, n) in line.at_once.filter((one) => one.calls > 1)" :key="some.calls"
            >{{ n ? ', ' : '' }}{{ some.calls }} together {{ minutesOf(some.minutes) }}</template
          >.
          <template v-if="line.at_once.at(-1)?.waits_for">
            The {{ line.at_once.at(-1)!.calls }}th waits for {{ line.at_once.at(-1)!.waits_for }}.</template
          >
        </p>
        <h4>Stands ready</h4>
        <ul>
          <li v-for="text in line.ready" :key="text">{{ text }}</li>
        </ul>
      </article>
    </div>
  </section>
</template>

<style scoped>
.calls {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(280px, 2fr);
  gap: 16px;
}
header,
.dishes {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
  margin-bottom: 8px;
}
header label {
  display: inline-flex;
  align-items: center;
  gap: 6px;
}
header .box {
  width: 90px;
}
header b {
  min-width: 24px;
  font-size: 22px;
  text-align: center;
}
ol {
  display: flex;
  flex-direction: column;
  gap: 6px;
  margin: 0;
  padding: 0;
  list-style: none;
}
ol li {
  display: grid;
  grid-template-columns: 104px 1fr auto;
  gap: 12px;
  align-items: center;
  padding: 8px 12px;
  border: 1px solid var(--fog2);
  border-radius: 10px;
  background: var(--fog0);
}
li.first {
  border: 2px solid var(--russet);
}
.at {
  font: 700 34px/1 var(--text);
}
.at small {
  display: block;
  margin-top: 4px;
  font-size: 15px;
  font-weight: 600;
}
small {
  display: block;
  color: var(--ink2);
}
.ready {
  display: flex;
  flex-direction: column;
  gap: 10px;
}
article {
  padding: 10px 14px;
}
.big {
  font: 700 30px/1.1 var(--text);
}
.big small {
  display: inline;
  margin-left: 8px;
  font-size: 15px;
  font-weight: 400;
}
h4 {
  margin: 6px 0 0;
}
ul {
  margin: 0;
  padding-left: 18px;
}
@media (max-width: 900px) {
  .calls {
    grid-template-columns: minmax(0, 1fr);
  }
  ol li {
    grid-template-columns: 92px 1fr;
  }
}
</style>
