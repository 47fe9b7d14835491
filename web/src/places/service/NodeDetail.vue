<script setup lang="ts">
/** Every figure of one pot, sauce or dish, and what can be changed there. */
import { NButton, NSelect } from 'naive-ui'
import { computed, ref, watch } from 'vue'
import { millilitres } from '@/parts/format'
import ProblemLine from '@/parts/ProblemLine.vue'
import { useSession } from '@/shell/session'
import BranchDetail from './BranchDetail.vue'
import FirstPots from './FirstPots.vue'
import LineDetail from './LineDetail.vue'
import PotDetail from './PotDetail.vue'
import { lineKey, type ServiceDraft } from './service'
import { fixed } from '@/parts/ways'

const props = defineProps<{ service: ServiceDraft; chosen: string }>()
defineEmits<{ cook: [pot: string] }>()
const session = useSession()
const plan = computed(() => props.service.plan.value!)
const pot = computed(() => plan.value.pots.find((p) => p.key === props.chosen))
const branch = computed(() => plan.value.branches.find((b) => b.key === props.chosen))
const shared = computed(() => plan.value.pots.some((p) => p.mother && p.key === branch.value?.pot))
const line = computed(() => plan.value.lines.find((_, i) => lineKey(i) === props.chosen))
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
function setPan(pot: string, name: string): void {
  void props.service.edit((doc) => {
    doc.pans = { ...doc.pans }
    if (name) doc.pans[pot] = name
    else delete doc.pans[pot]
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
    <PotDetail v-if="pot" :plan="plan" :pot="pot" @force="setForce" />
    <BranchDetail v-else-if="branch" :plan="plan" :branch="branch" :shared="shared" @force="setForce" />
    <LineDetail v-else-if="line" :line="line" />

    <FirstPots
      :plan="plan"
      :of="branch && !shared ? branch.pot : chosen"
      :pans="pans"
      @pan="setPan"
      @cook="$emit('cook', $event)"
    />
    <label v-if="pot || (branch && shared)" class="pan">
      <span class="label">{{ pot ? 'In which pan' : 'Finished in which pan' }}</span>
      <NSelect
        :value="chosenPan"
        :options="pans"
        :virtual-scroll="false"
        :aria-label="pot ? 'In which pan' : 'Finished in which pan'"
        @update:value="setPan(chosen, $event)"
      />
    </label>
    <form v-if="pot || branch" class="resize" @submit.prevent="resize">
      <label
        ><span class="label">Make instead, L</span
        ><input
          v-model="litres"
          class="box"
          inputmode="decimal"
          :placeholder="fixed(madeNow / 1000, 2)"
          aria-label="Make instead, L"
      /></label>
      <NButton attr-type="submit" :disabled="!litres.trim()">Portions follow</NButton>
      <NButton v-if="pot || branch?.pot" class="cook" @click="$emit('cook', chosen)">Cook it</NButton>
      <ProblemLine :problem="wrong" />
    </form>
  </section>
</template>

<style scoped>
.detail :deep(h3) {
  font-size: 22px;
}
.detail {
  display: flex;
  flex-direction: column;
  gap: 8px;
  padding: 12px 16px;
}
.cook {
  margin-left: auto;
}
.pan {
  max-width: 300px;
}
.resize {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px;
}
.resize input {
  width: 120px;
  text-align: right;
}
</style>
