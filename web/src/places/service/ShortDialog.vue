<script setup lang="ts">
/** Short of something: what can still be served. */
import { NButton } from 'naive-ui'
import { ref, watch } from 'vue'
import { api, ask, type Schemas } from '@/api/client'
import Dialog from '@/parts/Dialog.vue'
import { grams } from '@/parts/format'
import { useForm } from '@/shell/form'
import type { Loose, ServiceDraft } from './service'
import ProblemLine from '@/parts/ProblemLine.vue'

const props = defineProps<{ service: ServiceDraft; of: { ingredient: string; name: string } | null }>()
const emit = defineEmits<{ close: [] }>()
const have = ref('')
const found = ref<Schemas['Short'] | null>(null)
const form = useForm()
watch(
  () => props.of,
  () => ((have.value = ''), (found.value = null)),
)
const look = () =>
  form.run(async () => {
    found.value = await ask(
      api.POST('/api/services/short', {
        body: {
          document: props.service.plan.value!.service as Loose,
          pinned: props.service.pinned.value,
          ingredient: props.of!.ingredient,
          have: have.value,
        },
      }),
    )
  })
function serveAll(): void {
  const lines = found.value!.lines
  void props.service.edit((doc) => {
    doc.lines = doc.lines
      .map((line: Loose, i: number) => ({ ...line, portions: lines[i]?.all_alike ?? line.portions }))
      .filter((line: Loose) => line.portions > 0)
  })
  emit('close')
}
function serveAlone(at: number, portions: number): void {
  void props.service.edit((doc) => {
    if (portions > 0) doc.lines[at].portions = portions
    else doc.lines.splice(at, 1)
  })
  emit('close')
}
</script>

<template>
  <Dialog
    :show="of !== null"
    :title="`Short of ${of?.name.toLowerCase() ?? ''}`"
    width="680px"
    @update:show="(show: boolean) => show || emit('close')"
  >
    <form class="ask" @submit.prevent="look">
      <label
        ><span class="label">How much is there?</span
        ><input v-model="have" class="box" aria-label="How much is there?" placeholder="6 L"
      /></label>
      <NButton type="primary" attr-type="submit" :disabled="!have.trim()" :loading="form.busy.value"
        >What can be served?</NButton
      >
    </form>
    <ProblemLine :problem="form.problemAt('have')" />
    <p v-if="form.trouble.value" class="problem" role="alert">{{ form.trouble.value }}</p>
    <template v-if="found">
      <p v-if="found.enough"><b>It is enough</b>: {{ grams(found.need_g) }} are needed.</p>
      <template v-else>
        <p>{{ grams(found.need_g) }} are needed, {{ grams(found.have_g) }} are there.</p>
        <table class="grid">
          <thead>
            <tr>
              <th>Dish</th>
              <th class="n">asked</th>
              <th class="n">all alike</th>
              <th class="n">or it alone, about</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="line in found.lines.filter((l) => l.uses_g > 0.5)" :key="line.line">
              <td>
                <b>{{ line.dish }}</b>
              </td>
              <td class="n">{{ line.asked }}</td>
              <td class="n">
                <b>{{ line.all_alike }}</b>
              </td>
              <td class="n">
                <NButton v-if="line.alone !== null" size="small" @click="serveAlone(line.line, line.alone)"
                  >{{ line.alone }} of it</NButton
                >
              </td>
            </tr>
          </tbody>
        </table>
        <NButton type="primary" @click="serveAll">Serve all alike</NButton>
      </template>
    </template>
  </Dialog>
</template>

<style scoped>
.ask {
  display: flex;
  align-items: end;
  gap: 10px;
}
</style>
