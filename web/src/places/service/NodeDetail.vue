<script setup lang="ts">
/** Every figure of one pot, sauce or dish, and what can be changed there. */
import { NButton, NSelect } from 'naive-ui'
import { computed, ref, watch } from 'vue'
import { grams, millilitres, minutes } from '@/parts/format'
import ThicknessRibbon from '@/parts/ThicknessRibbon.vue'
import { useSession } from '@/shell/session'
import type { ServiceDraft } from './service'

const props = defineProps<{ service: ServiceDraft; chosen: string }>()
defineEmits<{ cook: [pot: string] }>()
const session = useSession()
const plan = computed(() => props.service.plan.value!)
const pot = computed(() => plan.value.pots.find((p) => p.key === props.chosen))
const branch = computed(() => plan.value.branches.find((b) => b.key === props.chosen))
const shared = computed(() => plan.value.pots.some((p) => p.mother && p.key === branch.value?.pot))
const line = computed(() =>
  props.chosen.startsWith('line-') ? plan.value.lines[Number(props.chosen.slice(5))] : undefined,
)
const force = computed(() => (branch.value ? (plan.value.service.force?.[branch.value.sauce] ?? 'auto') : 'auto'))
const ways = computed(() => [
  { key: 'auto', name: 'as it comes' },
  { key: 'own', name: 'a pot of its own' },
  ...(branch.value?.can_share
    ? [
        { key: 'share', name: 'share a mother' },
        { key: 'thicken', name: 'bind it by itself' },
      ]
    : []),
])
const sauceOf = (branch: string) => plan.value.branches.find((b) => b.key === branch)?.sauce ?? ''
function setForce(sauce: string, way: string): void {
  void props.service.edit((doc) => {
    doc.force = { ...doc.force }
    if (way === 'auto') delete doc.force[sauce]
    else doc.force[sauce] = way
  })
}
const pans = computed(() => [
  { value: '', label: 'as it comes' },
  ...session.pans
    .filter((p) => p.for_pots)
    .map((p) => ({ value: p.name, label: `${p.name}, ${millilitres(p.capacity_ml)}` })),
])
const chosenPan = computed(() => plan.value.service.pans?.[props.chosen] ?? '')
function setPan(name: string): void {
  void props.service.edit((doc) => {
    doc.pans = { ...doc.pans }
    if (name) doc.pans[props.chosen] = name
    else delete doc.pans[props.chosen]
  })
}
const litres = ref('')
watch(
  () => props.chosen,
  () => (litres.value = ''),
)
const wrong = computed(() => props.service.problemAt('ml'))
function resize(): void {
  const value = Number(litres.value.trim().replace(',', '.'))
  void props.service.flow(props.chosen, Number.isFinite(value) ? value * 1000 : 0)
}
const madeNow = computed(() => pot.value?.made_ml ?? branch.value?.made_ml ?? 0)
</script>

<template>
  <section class="detail" aria-live="polite">
    <template v-if="pot">
      <h3>{{ pot.mother ? `Mother pot: ${pot.name}` : pot.name }}</h3>
      <dl>
        <div>
          <dt>Make</dt>
          <dd>{{ pot.batches > 1 ? `${pot.batches} × ` : '' }}{{ millilitres(pot.made_ml / pot.batches) }}</dd>
        </div>
        <div>
          <dt>Weighs</dt>
          <dd>{{ grams(pot.made_g / pot.batches) }}</dd>
        </div>
        <div>
          <dt>In</dt>
          <dd>{{ pot.pan.name }}, {{ Math.round(100 * pot.fill_share) }} % full</dd>
        </div>
        <div>
          <dt>Takes</dt>
          <dd>{{ minutes(pot.minutes) }}{{ pot.batches > 1 ? ' each' : '' }}</dd>
        </div>
        <div>
          <dt>Thick</dt>
          <dd>{{ session.gradeName(pot.final.grade) || 'no grade' }}</dd>
        </div>
        <div>
          <dt>To sauces</dt>
          <dd>{{ grams(pot.taken_g) }}</dd>
        </div>
        <div>
          <dt>Clings</dt>
          <dd>{{ grams(pot.film_g) }}</dd>
        </div>
        <div>
          <dt>Left</dt>
          <dd>{{ grams(Math.max(0, pot.left_g)) }}</dd>
        </div>
      </dl>
      <p v-if="pot.mother" class="quiet">
        As thick as {{ plan.branches.find((b) => b.key === pot!.thickest)?.name }} needs it before its own additions;
        the others are let down.
      </p>
      <p v-for="note in pot.notes" :key="note" class="warning">{{ note }}</p>
      <p v-for="offer in pot.offers" :key="offer.do" class="offer">
        {{ offer.words }}.
        <NButton size="small" @click="setForce(sauceOf(offer.branch), offer.do)">Do that</NButton>
      </p>
    </template>

    <template v-else-if="branch">
      <h3>{{ branch.name }}</h3>
      <ThicknessRibbon
        :viscosity="branch.final.viscosity_pa_s"
        :low="branch.final.viscosity_low_pa_s"
        :high="branch.final.viscosity_high_pa_s"
        :target="branch.grade"
        slim
      />
      <dl>
        <div>
          <dt>Make</dt>
          <dd>{{ millilitres(branch.made_ml) }}, {{ grams(branch.final.total_g ?? branch.final.mass_g) }}</dd>
        </div>
        <div>
          <dt>Grade</dt>
          <dd>{{ session.gradeName(branch.grade) || 'as it is' }}</dd>
        </div>
        <div v-if="branch.let_down_g || branch.base_g">
          <dt>Of the pot</dt>
          <dd>{{ grams(branch.base_g) }}</dd>
        </div>
        <div v-if="branch.let_down_g">
          <dt>Let down with</dt>
          <dd>{{ grams(branch.let_down_g) }}</dd>
        </div>
        <div v-if="branch.bound_g">
          <dt>Bound with flour</dt>
          <dd>{{ grams(branch.bound_g) }}</dd>
        </div>
        <div>
          <dt>Salt</dt>
          <dd>{{ branch.final.salt_pct.toFixed(2) }} %</dd>
        </div>
        <div v-if="branch.pan">
          <dt>Finish in</dt>
          <dd>{{ branch.pan }}</dd>
        </div>
        <div>
          <dt>Cost</dt>
          <dd>{{ session.money(branch.cost) }}</dd>
        </div>
        <div v-if="branch.from_stock_ml">
          <dt>Made ahead</dt>
          <dd>{{ millilitres(branch.from_stock_ml) }}</dd>
        </div>
      </dl>
      <p v-if="branch.why" class="quiet">{{ shared ? '' : 'On its own: ' }}{{ branch.why }}.</p>
      <ul>
        <li v-for="one in branch.asked" :key="`${one.line}${one.need.volume_ml}`">
          {{ millilitres(one.need.volume_ml) }} for {{ one.dish }}
        </li>
        <li v-if="branch.film_ml" class="quiet">
          {{ millilitres(branch.film_ml) }} clings to pot and whisk, or is tasted
        </li>
      </ul>
      <div class="ways" role="radiogroup" aria-label="Which pot">
        <button
          v-for="way in ways"
          :key="way.key"
          type="button"
          role="radio"
          :aria-checked="force === way.key"
          @click="setForce(branch.sauce, way.key)"
        >
          {{ way.name }}
        </button>
      </div>
    </template>

    <template v-else-if="line">
      <h3>{{ line.called }}</h3>
      <p>{{ line.line.portions }} portions</p>
      <div v-for="(need, i) in line.needs" :key="i" class="need">
        <b>{{ millilitres(need.volume_ml) }}</b> {{ need.use.name.toLowerCase() }}
        <p v-for="text in need.lines" :key="text" class="quiet">{{ text }}</p>
      </div>
      <p v-if="line.layout">
        <b>{{ line.layout.vessels }} × {{ line.layout.name }}</b
        >, filled {{ Math.round(line.layout.fill_mm) }} mm deep, {{ grams(line.layout.each_g) }} each
      </p>
      <p v-for="round in line.rounds" :key="round.line">
        {{ round.line }}: <b>{{ minutes(round.minutes) }}</b>
      </p>
      <p v-if="line.finish">Then {{ line.finish }}</p>
      <p v-for="text in line.on_plate" :key="text" class="quiet">On the plate, {{ text }}</p>
      <p v-for="text in line.left_out" :key="text">
        <b>{{ text }}</b>
      </p>
      <p>{{ session.money(line.cost_each) }} a portion</p>
      <p class="allergens">
        <span class="label">Allergens</span><b v-for="a in line.allergens" :key="a">{{ a }}</b>
      </p>
    </template>

    <label v-if="pot || (branch && shared)" class="pan">
      <span class="label">{{ pot ? 'In which pan' : 'Finished in which pan' }}</span>
      <NSelect
        :value="chosenPan"
        :options="pans"
        :virtual-scroll="false"
        :aria-label="pot ? 'In which pan' : 'Finished in which pan'"
        @update:value="setPan"
      />
    </label>
    <form v-if="pot || branch" class="resize" @submit.prevent="resize">
      <label
        ><span class="label">Make instead, L</span
        ><input
          v-model="litres"
          class="box"
          inputmode="decimal"
          :placeholder="(madeNow / 1000).toFixed(2)"
          aria-label="Make instead, L"
      /></label>
      <NButton attr-type="submit" :disabled="!litres.trim()">Portions follow</NButton>
      <NButton v-if="pot || branch?.pot" class="cook" @click="$emit('cook', chosen)">Cook it</NButton>
      <span v-if="wrong" class="problem">{{ wrong.message }}. {{ wrong.remedy }}.</span>
    </form>
  </section>
</template>

<style scoped>
.detail {
  display: flex;
  flex-direction: column;
  gap: 8px;
  padding: 12px 16px;
}
h3 {
  font-size: 22px;
}
.ribbon {
  max-width: 420px;
}
.cook {
  margin-left: auto;
}
dl {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(160px, 1fr));
  gap: 2px 20px;
  margin: 0;
}
dl div {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 8px;
  border-bottom: 1px solid var(--fog2);
}
dt {
  color: var(--ink2);
  font-size: 14px;
}
dd {
  margin: 0;
  font-weight: 700;
  font-size: 17px;
  text-align: right;
}
ul {
  margin: 0;
  padding-left: 20px;
}
.need p {
  font-size: 15px;
}
.offer {
  padding: 4px 10px;
  border-left: 4px solid var(--butter);
  background: var(--butter-wash);
}
.pan {
  max-width: 300px;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.ways button {
  min-height: 44px;
  padding: 0 14px;
  border: 2px solid var(--fog3);
  border-radius: 10px;
  background: var(--white);
  font-weight: 600;
  cursor: pointer;
}
.ways [aria-checked='true'] {
  border-color: var(--ink);
  background: var(--ink);
  color: var(--white);
}
.resize {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px;
}
.allergens {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
}
.allergens b {
  padding: 1px 9px;
  border: 1.5px solid var(--ink2);
  border-radius: 999px;
  font-size: 14px;
}
.resize input {
  width: 120px;
  text-align: right;
}
</style>
