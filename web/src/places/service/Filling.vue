<script setup lang="ts">
/** How vessels are filled, what is done in rounds, how each sauce is given out. */
import type { Schemas } from '@/api/client'
import { grams, millilitres, minutes } from '@/parts/format'
import { useSession } from '@/shell/session'
import type { Plan, Production } from './service'

defineProps<{ plan: Plan; production: Production }>()
const session = useSession()
const name = (key: string) => session.ingredients.get(key)?.name ?? key
const over = (layout: Schemas['Layout']) => [
  ...layout.layers,
  ...Object.entries(layout.toppings).map(([key, g]) => `${grams(g)} ${name(key).toLowerCase()}`),
]
</script>

<template>
  <div class="filling">
    <section v-if="plan.lines.some((l) => l.layout)">
      <h3>Vessels</h3>
      <div class="scroll">
        <table class="grid">
          <thead>
            <tr>
              <th>Dish</th>
              <th class="n">vessels</th>
              <th class="n">each: solids</th>
              <th class="n">sauce</th>
              <th class="n">weighs filled</th>
              <th class="n">deep</th>
              <th>built up, over the top</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(line, i) in plan.lines.filter((l) => l.layout)" :key="i">
              <td>
                <b>{{ line.called }}</b>
              </td>
              <td class="n">
                <b>{{ line.layout!.vessels }}</b> × {{ line.layout!.name }}
              </td>
              <td class="n">{{ grams(line.layout!.solids_g) }}</td>
              <td class="n">{{ millilitres(line.layout!.sauce_ml) }}</td>
              <td class="n">
                <b>{{ grams(line.layout!.each_g) }}</b>
              </td>
              <td class="n">
                {{ Math.round(line.layout!.fill_mm) }} mm, {{ Math.round(100 * line.layout!.fill_share) }} %
              </td>
              <td>
                {{ over(line.layout!).join('; ') }}
                <span v-if="line.layout!.warning" class="problem">{{ line.layout!.warning }}</span>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
    </section>
    <section v-if="plan.lines.some((l) => l.rounds.length)">
      <h3>In rounds</h3>
      <template v-for="(line, i) in plan.lines" :key="i">
        <p v-for="round in line.rounds" :key="round.line">
          <b>{{ line.called }}</b>: {{ round.line }} = <b>{{ minutes(round.minutes) }}</b>
        </p>
      </template>
    </section>
    <section v-if="plan.lines.some((l) => l.finish)">
      <h3>Then</h3>
      <template v-for="(line, i) in plan.lines" :key="i">
        <p v-if="line.finish">
          <b>{{ line.called }}</b>: {{ line.finish }}
        </p>
      </template>
      <p class="quiet">Minutes from the fridge are kitchen figures. How hot the middle must be, your rules say.</p>
    </section>
    <section>
      <h3>Given out</h3>
      <div class="scroll">
        <table class="grid">
          <thead>
            <tr>
              <th>Dish</th>
              <th>sauce</th>
              <th class="n">each</th>
              <th class="n">mL</th>
              <th class="n">g</th>
              <th>in your ladles</th>
              <th class="n">kept back</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(one, i) in production.serve" :key="i">
              <td>
                <b>{{ one.dish }}</b>
              </td>
              <td>{{ one.sauce }}</td>
              <td class="n">{{ one.each }}</td>
              <td class="n">
                <b>{{ one.each_ml ? Math.round(one.each_ml) : '' }}</b>
              </td>
              <td class="n">{{ one.each_g ? Math.round(one.each_g) : '' }}</td>
              <td>{{ one.ladles }}</td>
              <td class="n">{{ one.kept_back_ml ? millilitres(one.kept_back_ml) : '' }}</td>
            </tr>
          </tbody>
        </table>
      </div>
    </section>
  </div>
</template>

<style scoped>
.filling {
  display: flex;
  flex-direction: column;
  gap: 18px;
}
td:first-child {
  min-width: 150px;
}
tr {
  break-inside: avoid;
}
@media print {
  td {
    white-space: normal;
    font-size: 13px;
  }
  td:first-child {
    min-width: 110px;
  }
}
h3 {
  margin-bottom: 4px;
  font-size: 22px;
}
</style>
