<script setup lang="ts">
/** The production sheet on A4. */
import { NButton } from 'naive-ui'
import { onMounted, onUnmounted } from 'vue'
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { day } from '@/parts/format'
import Filling from './Filling.vue'
import MatrixCost from './MatrixCost.vue'
import ProductionSheet from './ProductionSheet.vue'
import { useService } from './service'

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
    <article v-if="plan && production">
      <h1>{{ doc.name }}</h1>
      <p>
        <template v-if="doc.date">{{ day(doc.date) }} · </template>{{ (doc.serve_at ?? []).join(', ') }} ·
        {{ plan.lines.reduce((sum, line) => sum + line.line.portions, 0) }} portions
      </p>
      <ul>
        <li v-for="(line, i) in plan.lines" :key="i">{{ line.line.portions }} × {{ line.called }}</li>
      </ul>
      <ProductionSheet :plan="plan" :production="production" paper />
      <Filling :plan="plan" :production="production" />
      <MatrixCost :plan="plan" :production="production" />
      <p class="quiet">
        Amounts and times are estimates; cooling, holding and reheating follow your kitchen's own plan and local law.
      </p>
    </article>
  </div>
</template>

<style scoped>
.place {
  padding: 16px 20px;
}
.tools {
  display: flex;
  gap: 8px;
  margin-bottom: 12px;
}
article {
  display: flex;
  flex-direction: column;
  gap: 14px;
  max-width: 190mm;
  padding: 10mm;
  background: var(--paper);
  box-shadow: 0 1px 6px var(--shade);
  font-size: 14px;
}
ul {
  columns: 2;
  margin: 0;
  padding-left: 18px;
}
@media print {
  .place {
    padding: 0;
  }
  article {
    max-width: none;
    padding: 0;
    box-shadow: none;
    font-size: 12px;
  }
}
</style>
