<script setup lang="ts">
/** The pots of a service, to be read at two metres: in which pan, how often, what goes in for one and for
 * all. Guests' first. */
import { computed } from 'vue'
import { bulk, grams, millilitres } from '@/parts/format'
import { useSession } from '@/shell/session'
import type { Plan, Production } from './service'

const props = defineProps<{ plan: Plan; production: Production }>()
const session = useSession()
const names = computed(() => new Map(props.plan.pots.map((pot) => [pot.key, pot.name])))
</script>

<template>
  <div class="pots">
    <section v-for="one in production.weigh" :key="one.key" :class="{ guest: one.guests.length }">
      <h2>
        {{ one.name }}
        <span class="pan">{{ one.pan }}</span>
      </h2>
      <p v-if="one.guests.length" class="first">First, in clean things, for {{ one.guests.join('; ') }}</p>
      <p class="makes">
        <b>{{ millilitres(one.makes_ml) }}</b> {{ session.gradeName(one.grade) }}
        <template v-if="one.batches > 1">
          in <b>{{ one.batches }} batches</b></template
        >
        <template v-if="one.sittings_ml.length">
          · first sitting {{ millilitres(one.sittings_ml[0]!) }}, second
          {{ millilitres(one.sittings_ml[1]!) }}</template
        >
        <template v-if="one.feeds.length"> · {{ one.feeds.join(', ') }}</template>
      </p>
      <table>
        <thead v-if="one.batches > 1">
          <tr>
            <th />
            <th>for one</th>
            <th>for all {{ one.batches }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(w, i) in one.weighed" :key="i">
            <td class="what">{{ w.ingredient ? w.name : (names.get(one.of) ?? w.name) }}</td>
            <td class="n">{{ bulk(w.amount) }}</td>
            <td v-if="one.batches > 1" class="n all">{{ bulk(one.in_all[i]!) }}</td>
          </tr>
        </tbody>
      </table>
      <p v-if="one.let_down" class="note">{{ one.let_down }}</p>
      <p v-for="note in one.notes" :key="note" class="note">{{ note }}</p>
    </section>
    <p v-if="production.left.length" class="left">{{ production.left.join('. ') }}</p>
    <p v-for="used in plan.used" :key="used.name" class="left">
      On hand: {{ millilitres(used.taken_ml) }} {{ used.name }}. {{ used.let_down }}
      <template v-if="used.liquid_g">({{ grams(used.liquid_g) }})</template>
    </p>
  </div>
</template>

<style scoped>
.pots {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4mm 6mm;
  align-items: start;
}
section {
  padding: 4px 8px;
  border: 2px solid var(--ink);
  break-inside: avoid;
}
.guest {
  border-left: 10px solid var(--russet);
}
h2 {
  margin: 0;
  font-size: 18px;
  line-height: 1.1;
}
.pan {
  display: block;
  font: 800 19px var(--text);
}
.first {
  font-weight: 800;
}
.makes {
  font-size: 15px;
}
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 17px;
  line-height: 1.2;
}
th {
  font-size: 14px;
  text-align: right;
}
td {
  border-bottom: 1px solid var(--fog2);
}
.n {
  font-weight: 800;
  text-align: right;
  white-space: nowrap;
}
.all {
  font-weight: 600;
}
.note {
  font-size: 14px;
}
@media (max-width: 640px) {
  .pots {
    grid-template-columns: 1fr;
  }
}
</style>
