<script setup lang="ts">
/** A card to print and pin up: A5 or A4, one sauce, readable from the stove. */
import { NButton } from 'naive-ui'
import { computed, onMounted, onUnmounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, ask, type Worked } from '@/api/client'
import { grams, millilitres, minutes, told } from '@/parts/format'
import ThicknessRibbon from '@/parts/ThicknessRibbon.vue'
import { fixed, temperature } from '@/parts/ways'
import { useSession } from '@/shell/session'

const props = defineProps<{ id: number; size: string }>()
const router = useRouter()
const session = useSession()
const worked = ref<Worked | null>(null)
const trouble = ref('')
onMounted(async () => {
  try {
    const sauce = await ask(api.GET('/api/sauces/{sauce_id}', { params: { path: { sauce_id: props.id } } }))
    worked.value = await ask(
      api.POST('/api/work/check', { body: { sheet: sauce.sheet as Record<string, unknown>, resalt: false } }),
    )
  } catch (error) {
    trouble.value = (error as Error).message
  }
})
/** The sauces made for it first, each in its own pan, then itself. */
const pots = computed(() => [
  ...(worked.value?.inside ?? []).map((pot) => ({
    key: pot.key,
    title: `First, in ${pot.pan}: ${pot.sheet.name}, ${grams(pot.made_g)}`,
    cards: pot.cards,
  })),
  { key: 'own', title: `Then: ${worked.value?.sheet.name}`, cards: worked.value?.cards ?? [] },
])
const paper = computed(() => (props.size === 'A4' ? 'A4' : 'A5'))
// The page's size cannot be set from a scoped rule.
const rule = document.createElement('style')
rule.textContent = `@page { size: ${paper.value} portrait; margin: 9mm }`
onMounted(() => document.head.append(rule))
onUnmounted(() => rule.remove())
const print = () => window.print()
</script>

<template>
  <div class="place">
    <p class="tools no-print">
      <NButton type="primary" @click="print">Print on {{ paper }}</NButton>
      <NButton @click="router.push(`/sauces/${id}/card?size=${paper === 'A4' ? 'A5' : 'A4'}`)"
        >{{ paper === 'A4' ? 'A5' : 'A4' }} instead</NButton
      >
      <NButton @click="router.push(`/sauces/${id}`)">Back to the sauce</NButton>
    </p>
    <p v-if="trouble" class="problem">{{ trouble }}</p>
    <article v-if="worked" :class="paper">
      <header>
        <h1>{{ worked.sheet.name }}</h1>
        <p>
          <b>{{ session.gradeName(worked.final.grade) || worked.final.reason }}</b> at
          {{ temperature(worked.final.serving_c) }} ·
          {{ millilitres(worked.final.total_ml ?? worked.final.volume_ml) }},
          {{ grams(worked.final.total_g ?? worked.final.mass_g) }} · {{ minutes(worked.final.minutes) }} · salt
          {{ fixed(worked.final.salt_pct, 2) }} %
        </p>
        <ThicknessRibbon
          :viscosity="worked.final.viscosity_pa_s"
          :low="worked.final.viscosity_low_pa_s"
          :high="worked.final.viscosity_high_pa_s"
          :target="worked.sheet.target?.grade"
        />
      </header>
      <template v-for="pot in pots" :key="pot.key">
        <h2 v-if="pots.length > 1">{{ pot.title }}</h2>
        <ol>
          <li v-for="(card, i) in pot.cards" :key="i">
            <div class="weigh">
              <p v-for="w in card.weighed" :key="w.field">
                <b>{{ told(w.amount) }}</b> {{ w.name }}
              </p>
            </div>
            <div>
              <b>{{ card.title }}.</b> {{ card.do }}
              <span v-for="line in card.lines" :key="line" class="line">{{ line }}</span>
              <em>{{ card.cue }}</em>
            </div>
          </li>
        </ol>
      </template>
      <footer>
        <p v-if="worked.final.allergens.length">
          Allergens: <b>{{ worked.final.allergens.join(', ') }}</b>
        </p>
        <p>Thickness and times are estimates: taste, and look at the spoon.</p>
      </footer>
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
  margin-bottom: 14px;
}
article {
  padding: 8mm;
  background: var(--paper);
  box-shadow: 0 1px 6px var(--shade);
}
.A5 {
  width: 148mm;
  max-width: 100%;
  font-size: 13px;
}
.A4 {
  width: 210mm;
  max-width: 100%;
  font-size: 17px;
}
h1 {
  font-size: 2em;
}
h2 {
  margin: 8px 0 2px;
  font-size: 1.3em;
}
header .ribbon {
  margin: 6px 0;
}
ol {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: 34% 1fr;
  gap: 10px;
  padding: 5px 0;
  border-top: 1px solid var(--fog3);
  break-inside: avoid;
}
.weigh b {
  font-size: 1.35em;
}
em,
.line {
  display: block;
  color: var(--ink2);
}
footer {
  margin-top: 8px;
  padding-top: 6px;
  border-top: 2px solid var(--ink);
}
@media print {
  .place {
    padding: 0;
  }
  article {
    width: auto;
    padding: 0;
    box-shadow: none;
  }
}
</style>
