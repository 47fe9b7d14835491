<script setup lang="ts">
/** Made, served, kept and thrown away, week by week; where too much was made, what to plan instead. */
import { NButton } from 'naive-ui'
import { computed, ref, watch } from 'vue'
import { RouterLink } from 'vue-router'
import { api, ask, type Schemas } from '@/api/client'
import ChoiceField from '@/parts/ChoiceField.vue'
import { grams, isoDay } from '@/parts/format'
import { fixed } from '@/parts/ways'
import { useList } from '@/shell/list'
import JournalTabs from './JournalTabs.vue'

const back = ref('8')
const told = ref<Schemas['Weeks'] | null>(null)
const { trouble, load } = useList(async () => {
  const today = new Date()
  const first = new Date(today.getTime() - Number(back.value) * 7 * 86_400_000)
  const query = { first: isoDay(first), last: isoDay(today), offset: -today.getTimezoneOffset() }
  told.value = await ask(api.GET('/api/journal/weeks', { params: { query } }))
})
watch(back, load)
const weeks = computed(() => told.value?.weeks ?? [])
const most = computed(() => Math.max(1, ...weeks.value.flatMap((week) => week.lines.map((line) => line.made_g ?? 0))))
const spoken = (week: string) => `Week ${Number(week.split('-W')[1])}, ${week.split('-')[0]}`
const width = (part = 0) => `${(100 * part) / most.value}%`
const spans = ['4', '8', '26', '52'].map((value) => ({ value, label: `${value} weeks` }))
</script>

<template>
  <div class="place">
    <JournalTabs>
      <ChoiceField class="span" label="of the last" :value="back" :options="spans" @change="back = $event" />
    </JournalTabs>
    <p v-if="trouble" class="problem" role="alert">
      {{ trouble }} <NButton size="small" @click="load">Try again</NButton>
    </p>
    <p v-if="told && !weeks.length" class="empty">
      No sauce came to its end in these weeks. Write batches down at the stove; say afterwards how many portions went
      out and what was thrown away, and it is added up here.
    </p>
    <section v-if="told?.instead?.length" class="instead" aria-label="What to plan instead">
      <h2>Too much is made of</h2>
      <p v-for="one in told.instead" :key="one.name">
        <b>{{ one.name }}</b>: {{ one.words
        }}<template v-if="one.cost >= 0.01">; {{ fixed(one.cost, 2) }} thrown away so far</template>
      </p>
    </section>
    <section v-for="week in weeks" :key="week.week" class="sheet" :aria-label="spoken(week.week)">
      <header>
        <h2>{{ spoken(week.week) }}</h2>
        <p>
          <template v-if="week.thrown_pct !== null"
            ><b>{{ Math.round(week.thrown_pct) }} %</b> thrown away of {{ grams(week.said_g)
            }}<template v-if="week.cost >= 0.01">, {{ fixed(week.cost, 2) }} in money</template></template
          ><template v-if="week.made_g > week.said_g + 1"
            ><template v-if="week.said_g">; of </template>{{ grams(week.made_g - week.said_g) }} nobody said</template
          >
        </p>
      </header>
      <ul>
        <li v-for="line in week.lines" :key="line.name">
          <div class="name">
            <RouterLink v-if="line.sauce_id" :to="`/sauces/${line.sauce_id}`">{{ line.name }}</RouterLink>
            <span v-else>{{ line.name }}</span>
            <small class="quiet">{{ line.batches }} {{ line.batches === 1 ? 'batch' : 'batches' }}</small>
          </div>
          <div
            class="bar"
            role="img"
            :aria-label="`${grams(line.served_g)} served, ${grams(line.kept_g)} kept, ${grams(line.thrown_g)} thrown away`"
          >
            <i :class="line.unsaid === line.batches ? 'unsaid' : 'served'" :style="{ width: width(line.served_g) }"></i>
            <i class="kept" :style="{ width: width(line.kept_g) }"></i>
            <i class="thrown" :style="{ width: width(line.thrown_g) }"></i>
          </div>
          <p class="told">
            <span v-if="line.unsaid === line.batches" class="quiet"
              >{{ grams(line.made_g) }}, and nobody said what became of it</span
            >
            <template v-else>
              <span>{{ grams(line.served_g) }} served</span>
              <span v-if="line.unsaid" class="quiet">of {{ line.unsaid }} nobody said</span>
            </template>
            <span v-if="line.kept_g >= 1">{{ grams(line.kept_g) }} kept</span>
            <b v-if="line.thrown_g >= 1">{{ grams(line.thrown_g) }} thrown away</b>
            <span v-if="line.reasons?.length" class="quiet">{{ line.reasons?.join(', ') }}</span>
          </p>
        </li>
      </ul>
    </section>
    <p v-if="weeks.length" class="key quiet">
      <i class="served"></i> served <i class="kept"></i> kept <i class="thrown"></i> thrown away. Served is what is
      neither kept nor thrown away.
    </p>
  </div>
</template>

<style scoped>
.place {
  max-width: 1100px;
  padding: 16px 20px 24px;
}
.span {
  display: flex;
  align-items: center;
  gap: 8px;
  min-width: 210px;
  margin-left: auto;
}
section {
  margin-bottom: 12px;
  padding: 12px 16px;
}
section header {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  justify-content: space-between;
  gap: 4px 20px;
}
h2 {
  font-size: 21px;
}
header b {
  font: 600 26px var(--display);
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: grid;
  grid-template: 'name bar' auto 'name told' auto / minmax(170px, 260px) 1fr;
  gap: 2px 16px;
  padding: 8px 0;
  border-top: 1px solid var(--fog2);
}
.name {
  grid-area: name;
  display: flex;
  flex-direction: column;
  font-weight: 600;
}
.bar {
  grid-area: bar;
  display: flex;
  align-self: center;
  height: 18px;
}
i {
  display: inline-block;
  min-width: 0;
}
.key i {
  width: 14px;
  height: 14px;
  margin-left: 10px;
  vertical-align: -2px;
}
i.served {
  background: var(--fog3);
}
i.unsaid {
  border: 2px dashed var(--fog3);
}
i.kept {
  background: var(--leaf);
}
i.thrown {
  background: repeating-linear-gradient(45deg, var(--danger) 0 5px, var(--danger-wash) 5px 9px);
}
.told {
  grid-area: told;
  display: flex;
  flex-wrap: wrap;
  gap: 2px 16px;
}
.instead {
  border-left: 6px solid var(--russet);
  background: var(--fog0);
  font-size: 18px;
}
.empty {
  max-width: 640px;
  font-size: 20px;
}
@media (max-width: 700px) {
  li {
    display: flex;
    flex-direction: column;
  }
  .bar {
    width: 100%;
  }
  .span {
    margin-left: 0;
  }
}
</style>
