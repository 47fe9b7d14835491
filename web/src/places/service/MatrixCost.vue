<script setup lang="ts">
/** Allergens dish by dish, and what everything costs. */
import { useSession } from '@/shell/session'
import type { Plan, Production } from './service'

/** `wall`: the allergens alone. */
defineProps<{ plan: Plan; production: Production; wall?: boolean }>()
const { money } = useSession()
</script>

<template>
  <div class="both">
    <section class="matrix">
      <h3>Allergens</h3>
      <div class="scroll">
        <table class="grid">
          <thead>
            <tr>
              <th>Dish</th>
              <th v-for="a in production.allergens" :key="a" class="c">{{ a }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(row, i) in production.matrix" :key="i">
              <td>
                <b>{{ row.dish }}</b>
              </td>
              <td v-for="(there, j) in row.marks" :key="j" class="c" :class="{ there }">{{ there ? 'yes' : '' }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <p class="quiet">
        Followed from every ingredient. Traces, changed products and your kitchen's own plan come on top.
      </p>
    </section>
    <section v-if="!wall">
      <h3>Cost</h3>
      <div class="scroll">
        <table class="grid">
          <thead>
            <tr>
              <th>Dish</th>
              <th class="n">portions</th>
              <th class="n">a portion</th>
              <th class="n">in all</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(line, i) in plan.lines" :key="i">
              <td>
                <b>{{ line.called }}</b>
              </td>
              <td class="n">{{ line.line.portions }}</td>
              <td class="n">
                <b>{{ money(line.cost_each) }}</b>
              </td>
              <td class="n">{{ money(line.cost) }}</td>
            </tr>
          </tbody>
          <tfoot>
            <tr>
              <td colspan="3">In all</td>
              <td class="n">
                <b>{{ money(production.cost) }}</b>
              </td>
            </tr>
          </tfoot>
        </table>
        <table class="grid">
          <thead>
            <tr>
              <th>Pot, sauce</th>
              <th class="n">cost</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="one in production.weigh" :key="one.key">
              <td>{{ one.name }}</td>
              <td class="n">{{ money(one.cost) }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <p class="quiet">What a sauce costs holds its share of its mother pot.</p>
      <template v-if="production.stretch.length">
        <h3>Stretching the costly</h3>
        <p v-for="(one, i) in production.stretch" :key="i">
          {{ one.dish }}: a tenth of the solids from {{ one.costly }} to {{ one.cheaper }} saves
          <b>{{ money(one.saves) }}</b> a portion
        </p>
      </template>
    </section>
  </div>
</template>

<style scoped>
.matrix {
  break-inside: avoid;
}
.both {
  display: flex;
  flex-direction: column;
  gap: 18px;
}
h3 {
  margin: 6px 0 4px;
  font-size: 22px;
}
.c {
  text-align: center;
}
.there {
  background: var(--butter-wash);
  font-weight: 800;
}
</style>
