<script setup lang="ts">
/** The production sheet: what to buy, what to do first, what to weigh for each pot and sauce. */
import { NButton } from 'naive-ui'
import { computed } from 'vue'
import { RouterLink } from 'vue-router'
import type { Schemas } from '@/api/client'
import { amount, bulk, grams, millilitres, minutes, pack, packOf } from '@/parts/format'
import { fixed } from '@/parts/ways'
import { useSession } from '@/shell/session'
import type { Plan, Production } from './service'

const props = defineProps<{
  plan: Plan
  production: Production
  paper?: boolean
  batches?: Schemas['PotOfService'][]
}>()
defineEmits<{ short: [row: { ingredient: string; name: string }]; cook: [pot: string] }>()
const session = useSession()
const ofPot = (key: string) => (props.batches ?? []).filter((batch) => batch.pot === key)
/** Cooked for this service, and in its plan no more: told, never put under another pot. */
const strays = computed(() => {
  const planned = new Set(props.production.weigh.map((one) => one.key))
  return (props.batches ?? []).filter((batch) => !planned.has(batch.pot))
})
/** Where the weight could be taken for the cooked one, the word stands beside it. */
const rawOrDry = (row: Production['buy'][number]) =>
  row.board_g > 1.01 * row.used_g
    ? `raw, ${grams(row.used_g)} cooked`
    : row.board_g < 0.99 * row.used_g
      ? `dry, ${grams(row.used_g)} cooked`
      : ''
const mothers = computed(() => new Map(props.plan.pots.map((pot) => [pot.key, pot.name])))
</script>

<template>
  <div class="sheets">
    <section v-if="!paper && production.cautions.length" class="mind">
      <h3>Mind</h3>
      <ul>
        <li v-for="text in production.cautions" :key="text">{{ text }}</li>
      </ul>
    </section>
    <section>
      <h3>To buy and have ready</h3>
      <div class="scroll">
        <table class="grid">
          <thead>
            <tr>
              <th>What</th>
              <th class="n">goes in</th>
              <th>or</th>
              <th class="n">to buy</th>
              <th class="n">packs</th>
              <th class="n">cost</th>
              <th v-if="!paper" />
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in production.buy" :key="row.ingredient">
              <td>
                <b>{{ row.name }}</b><span v-if="row.on_hand_g >= 1" class="quiet">
                  · {{ grams(row.on_hand_g) }} on hand</span
                >
              </td>
              <td class="n">
                <b>{{ grams(row.board_g) }}</b>{{ ' '
                }}<span v-if="rawOrDry(row)" class="quiet">{{ rawOrDry(row) }}</span>
              </td>
              <td class="quiet">
                {{ row.volume_ml ? millilitres(row.volume_ml) : row.spoons ? amount(row.spoons) : '' }}
              </td>
              <td class="n">
                {{ !row.bought_g ? 'none' : row.bought_ml != null ? millilitres(row.bought_ml) : grams(row.bought_g) }}
              </td>
              <td class="n">
                {{ row.packs ? `${row.packs} × ${row.pack_ml != null ? packOf(row.pack_ml) : pack(row.pack_g)}` : '' }}
              </td>
              <td class="n">{{ fixed(row.cost, 2) }}</td>
              <td v-if="!paper">
                <NButton quaternary size="small" :aria-label="`Short of ${row.name}`" @click="$emit('short', row)"
                  >Short?</NButton
                >
              </td>
            </tr>
          </tbody>
          <tfoot>
            <tr>
              <td colspan="5">In all, as bought</td>
              <td class="n">
                <b>{{ session.money(production.cost) }}</b>
              </td>
              <td v-if="!paper" />
            </tr>
          </tfoot>
        </table>
      </div>
    </section>
    <section>
      <h3>In this order</h3>
      <ol class="order">
        <li v-for="text in production.prepare" :key="text">{{ text }}</li>
      </ol>
    </section>
    <section v-if="production.trimmings.length || production.left.length">
      <h3>Trimmings, and what is over</h3>
      <p v-for="one in production.trimmings" :key="one.kind">{{ one.words }}</p>
      <p v-for="text in production.left" :key="text">{{ text }}</p>
    </section>
    <section v-if="strays.length" class="mind">
      <h3>Cooked for it, in the plan no more</h3>
      <ul>
        <li v-for="one in strays" :key="one.id">
          <RouterLink :to="`/stove/${one.id}`"
            >{{ one.name }}, {{ one.status === 'on' ? 'on the stove' : 'done' }}</RouterLink
          >
        </li>
      </ul>
    </section>
    <section class="pots">
      <article
        v-for="one in production.weigh"
        :key="one.key"
        class="sheet"
        :class="{ branch: one.of, guest: one.guests.length }"
      >
        <h3>{{ one.name }}</h3>
        <p class="quiet">
          <template v-if="one.of">from {{ mothers.get(one.of) }} · </template>
          <b v-if="one.batches > 1">{{ one.batches }} batches, weighed for one; in all it </b>makes
          {{ millilitres(one.makes_ml) }}, {{ grams(one.makes_g) }}, {{ session.gradeName(one.grade) }} ·
          {{ minutes(one.minutes) }} · {{ session.money(one.cost) }}
        </p>
        <p>
          <b>{{ one.pan }}</b><template v-if="one.feeds.length">, for {{ one.feeds.join(', ') }}</template>
        </p>
        <p v-if="one.guests.length" class="first">First, in clean things: {{ one.guests.join('; ') }}</p>
        <p v-if="one.sittings_ml.length">
          First sitting {{ millilitres(one.sittings_ml[0]!) }}, second {{ millilitres(one.sittings_ml[1]!) }}
        </p>
        <p v-for="(w, i) in one.weighed" :key="i" class="weigh">
          <b>{{ bulk(w.amount) }}</b> {{ w.name }}
          <span v-if="w.spoons && (w.spoons.measure || w.spoons.unit !== w.amount.unit)" class="quiet">{{
            amount(w.spoons)
          }}</span>
          <span v-if="one.batches > 1" class="quiet">· {{ bulk(one.in_all[i]!) }} in all</span>
        </p>
        <p v-for="note in [...(one.let_down ? [one.let_down] : []), ...one.notes]" :key="note" class="quiet">
          {{ note }}
        </p>
        <ol>
          <li v-for="(step, i) in one.steps" :key="i">{{ step }}</li>
        </ol>
        <p v-if="!paper" class="cook">
          <NButton :aria-label="`Cook ${one.name}`" @click="$emit('cook', one.key)">{{
            ofPot(one.key).length ? 'Cook another' : 'Cook it'
          }}</NButton>
          <template v-for="batch in ofPot(one.key)" :key="batch.id">
            <RouterLink v-if="batch.status === 'on'" :to="`/stove/${batch.id}`">on the stove</RouterLink>
            <span v-else>✓ cooked</span>
          </template>
        </p>
      </article>
    </section>
  </div>
</template>

<style scoped>
.sheets {
  display: flex;
  flex-direction: column;
  gap: 18px;
}
h3 {
  font-size: 22px;
}
.order {
  margin: 4px 0 0;
  padding-left: 24px;
}
.pots {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(320px, 1fr));
  gap: 12px;
}
article {
  padding: 10px 14px;
  break-inside: avoid;
}
.branch {
  border-left: 6px solid var(--sauce);
}
.guest {
  border-left: 6px solid var(--russet);
}
.first {
  font-weight: 700;
  color: var(--russet);
}
.mind {
  padding: 8px 12px;
  border: 2px solid var(--ink2);
  border-radius: 10px;
}
.mind ul {
  margin: 0;
  padding-left: 20px;
}
.weigh b {
  display: inline-block;
  min-width: 84px;
  font-size: 18px;
  text-align: right;
}
.cook {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 14px;
  margin-top: 8px;
  font-weight: 700;
}
article ol {
  margin: 6px 0 0;
  padding-left: 20px;
  font-size: 15px;
}
</style>
