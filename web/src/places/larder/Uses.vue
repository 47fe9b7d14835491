<script setup lang="ts">
/** How much sauce each use asks for in this kitchen, and what clings to a pot. */
import { useDebounceFn } from '@vueuse/core'
import { ref } from 'vue'
import { api, ask, Refused, type Problem } from '@/api/client'
import NumberField from '@/parts/NumberField.vue'
import { useSession } from '@/shell/session'
import { millilitres, number } from '@/parts/format'
import { decimals } from '@/parts/ways'

const session = useSession()
const wrong = ref<Problem | null>(null)
const problem = (what: string) => (wrong.value?.field === what ? wrong.value : null)
/** What is typed counts once the typing stops. */
const setSoon = useDebounceFn((what: string, text: string) => set(what, text), 600)
async function set(what: string, text: string): Promise<void> {
  try {
    await ask(api.PUT('/api/larder/habits', { body: { what, value: text.trim() === '' ? null : text } }))
    wrong.value = null
    await session.reload()
  } catch (error) {
    const first = error instanceof Refused ? error.problems[0] : null
    wrong.value = { ...(first ?? { code: '', message: (error as Error).message, remedy: '' }), field: what }
  }
}
</script>

<template>
  <section>
    <p class="quiet">
      What your kitchen gives. An empty entry is the usual again. A dish may still ask for more or less by itself.
    </p>
    <div class="scroll sheet">
      <table class="grid">
        <thead>
          <tr>
            <th>Use</th>
            <th>for each of</th>
            <th class="n">mL</th>
            <th>usually</th>
            <th>how thick</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="use in session.uses" :key="use.key">
            <td>
              <b>{{ use.name }}</b><span v-if="use.own" class="own">yours</span>
            </td>
            <td>{{ use.counted_in }}</td>
            <td class="n">
              <NumberField
                bare
                :value="use.per_ml"
                :label="`mL, ${use.name}`"
                :problem="problem(use.key)"
                @change="setSoon(use.key, $event)"
              />
            </td>
            <td class="quiet">{{ number(use.usual_ml) }} mL. {{ decimals(use.why) }}</td>
            <td>{{ session.gradeName(use.grade) }}</td>
          </tr>
          <tr>
            <td><b>Clings to pot and whisk, is tasted</b></td>
            <td>pots</td>
            <td class="n">
              <NumberField
                bare
                :value="session.catalogue?.film_ml"
                label="mL, clings"
                :problem="problem('film')"
                @change="setSoon('film', $event)"
              />
            </td>
            <td class="quiet">{{ millilitres(session.catalogue?.usual_film_ml ?? 0) }}</td>
            <td />
          </tr>
          <tr>
            <td><b>The most you whisk smooth in one pot</b></td>
            <td>pots</td>
            <td class="n">
              <NumberField
                bare
                :value="session.catalogue?.whisk_ml"
                label="mL, whisked at once"
                :problem="problem('whisk')"
                @change="setSoon('whisk', $event)"
              />
            </td>
            <td class="quiet">{{ millilitres(session.catalogue?.usual_whisk_ml ?? 0) }}</td>
            <td />
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>

<style scoped>
section {
  display: flex;
  flex-direction: column;
  gap: 8px;
}
.n {
  width: 110px;
}
</style>
