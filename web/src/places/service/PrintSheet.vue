<script setup lang="ts">
/** The sheets for the wall, a page a station: what is served and what to mind, the pots, the filling and
 * giving out, buying and getting ready. */
import { NButton } from 'naive-ui'
import { onMounted, onUnmounted } from 'vue'
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { day } from '@/parts/format'
import Filling from './Filling.vue'
import MatrixCost from './MatrixCost.vue'
import ProductionSheet from './ProductionSheet.vue'
import { useService } from './service'
import VesselLabels from './VesselLabels.vue'
import WallPots from './WallPots.vue'

const props = defineProps<{ id: number }>()
const router = useRouter()
const { doc, plan, production, open } = useService()
const trouble = ref('')
// The page's size cannot be set from a scoped rule.
const rule = document.createElement('style')
rule.textContent = '@page { size: A4 portrait; margin: 11mm }'
onMounted(async () => {
  document.head.append(rule)
  await open(props.id).catch((error) => (trouble.value = (error as Error).message))
})
onUnmounted(() => rule.remove())
const print = () => window.print()
</script>

<template>
  <div class="place">
    <p class="no-print tools">
      <NButton type="primary" @click="print">Print</NButton>
      <NButton @click="router.push(`/service/${id}`)">Back to the service</NButton>
    </p>
    <p v-if="trouble" class="problem">{{ trouble }}</p>
    <template v-if="plan && production">
      <article class="pass">
        <h1>{{ doc.name }}</h1>
        <p class="when">
          <template v-if="doc.date">{{ day(doc.date) }} · </template>{{ (doc.serve_at ?? []).join(', ') }} ·
          {{ plan.lines.reduce((sum, line) => sum + line.line.portions, 0) }} portions
        </p>
        <ul class="served">
          <li v-for="(line, i) in plan.lines" :key="i" :class="{ guest: line.line.without?.length }">
            <b>{{ line.line.portions }}</b> <span>{{ line.called }}</span>
            <span v-if="line.left_out.length" class="out">{{ line.left_out.join('; ') }}</span>
            <span v-if="line.refused" class="out">NOT SERVED: see the plan</span>
          </li>
        </ul>
        <section v-if="production.cautions.length" class="mind">
          <h2>Mind</h2>
          <ul>
            <li v-for="text in production.cautions" :key="text">{{ text }}</li>
          </ul>
        </section>
        <MatrixCost :plan="plan" :production="production" wall />
      </article>
      <article class="station">
        <h1>
          Pots <span class="of">{{ doc.name }}</span>
        </h1>
        <WallPots :plan="plan" :production="production" />
      </article>
      <article class="station">
        <h1>
          Fill and give out <span class="of">{{ doc.name }}</span>
        </h1>
        <Filling :plan="plan" :production="production" />
      </article>
      <article v-if="plan.lines.some((line) => line.layout)" class="station">
        <h1>
          Labels <span class="of">{{ doc.name }}</span>
        </h1>
        <VesselLabels :plan="plan" />
      </article>
      <article class="station ready">
        <h1>
          Buy and get ready <span class="of">{{ doc.name }}</span>
        </h1>
        <ProductionSheet :plan="plan" :production="production" paper />
        <p class="quiet">
          Amounts and times are estimates; cooling, holding and reheating follow your kitchen's own plan and local law.
        </p>
      </article>
    </template>
  </div>
</template>

<style scoped>
.place {
  display: flex;
  flex-direction: column;
  gap: 16px;
  padding: 16px 20px;
}
.tools {
  display: flex;
  gap: 8px;
}
article {
  display: flex;
  flex-direction: column;
  gap: 12px;
  max-width: 190mm;
  padding: 10mm;
  background: var(--paper);
  box-shadow: 0 1px 6px var(--shade);
  font-size: 16px;
}
h1 {
  font-size: 32px;
}
.of {
  font: 500 18px var(--text);
  color: var(--ink2);
}
.when {
  font-size: 20px;
}
ul {
  margin: 0;
  padding-left: 20px;
}
.served {
  padding: 0;
  list-style: none;
}
.served li {
  display: grid;
  grid-template-columns: 64px 1fr;
  gap: 0 10px;
  padding: 3px 0;
  border-bottom: 1px solid var(--fog2);
  font-size: 21px;
}
.served b {
  font-size: 24px;
  text-align: right;
}
.served .guest {
  border-left: 8px solid var(--russet);
  font-weight: 700;
}
.served .out {
  grid-column: 2;
  font-size: 17px;
}
.mind {
  padding: 8px 12px;
  border: 3px solid var(--ink);
  font-size: 18px;
}
@media print {
  .place {
    display: block;
    padding: 0;
  }
  article {
    max-width: none;
    padding: 0;
    box-shadow: none;
  }
  .station {
    break-before: page;
  }
  .ready {
    font-size: 13px;
  }
}
</style>
