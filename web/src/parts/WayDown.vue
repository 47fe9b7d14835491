<script setup lang="ts">
/** What a reduction passes on the way down in this pan: what to weigh, how deep to dip, when. */
import { NButton } from 'naive-ui'
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { useSession } from '@/shell/session'
import { fixed } from './ways'
import { minutes, scaleReads } from './format'

const props = defineProps<{
  along: Schemas['Along']
  /** What is in the pot where the step stops: lighter marks lie beyond it. */
  endsG?: number | null
  /** The grade it stops at. */
  grade?: string
  /** A grade may be taken for the stop. */
  takes?: boolean
}>()
const emit = defineEmits<{ stop: [grade: string] }>()
const session = useSession()

const way = computed(() => props.along.marks.map((mark) => ({ mark, beyond: mark.mass_g < (props.endsG ?? 0) - 0.5 })))
const salted = computed(() => props.along.marks.some((mark) => mark.salt_pct >= 0.005))
const isGrade = (key: string) => session.grades.some((grade) => grade.key === key)
const turns: Record<string, string> = { rich: 'gets rich', oily: 'turns oily', split: 'splits' }
</script>

<template>
  <table v-if="way.length" class="way">
    <caption>
      On the way down in this pan
    </caption>
    <thead>
      <tr>
        <th scope="col">it</th>
        <th scope="col" class="n">weighs</th>
        <th scope="col" class="n">deep</th>
        <th scope="col" class="n">after</th>
        <th v-if="salted" scope="col" class="n">salt</th>
        <th v-if="takes" />
      </tr>
    </thead>
    <tbody>
      <tr v-for="{ mark, beyond } in way" :key="mark.name" :class="[mark.key, { beyond }]">
        <th scope="row">{{ turns[mark.key] ?? `is ${mark.name}` }}</th>
        <td class="n">
          <b>{{ scaleReads(mark.scale_g ?? mark.mass_g) }}</b>
        </td>
        <td class="n">{{ Math.round(mark.level_mm) }} mm</td>
        <td class="n">{{ minutes(mark.minutes) }}</td>
        <td v-if="salted" class="n salt">{{ fixed(mark.salt_pct, 2) }} %</td>
        <td v-if="takes" class="take">
          <template v-if="isGrade(mark.key)">
            <span v-if="grade === mark.key" class="quiet">stops here</span>
            <NButton v-else size="small" :aria-label="`Stop at ${mark.name}`" @click.stop="emit('stop', mark.key)"
              >Stop here</NButton
            >
          </template>
        </td>
      </tr>
    </tbody>
  </table>
  <p v-if="way.length" class="quiet small">
    Weights {{ way[0]!.mark.scale_g === null ? 'without the pan' : 'with the pan' }}. Thin: beyond where this step
    stops.
  </p>
</template>

<style scoped>
.way {
  width: 100%;
  border-collapse: collapse;
  font-size: 16px;
}
.way caption {
  padding: 6px 0 2px;
  text-align: left;
  font-weight: 700;
}
.way thead th {
  font-weight: 400;
  font-size: 16px;
  color: var(--ink2);
}
.way th {
  text-align: left;
  font-weight: 600;
}
.way td,
.way th {
  padding: 3px 8px 3px 0;
  border-bottom: 1px solid var(--fog2);
}
.way .n {
  text-align: right;
  white-space: nowrap;
}
.beyond,
.beyond b,
.beyond th {
  color: var(--ink2);
  font-weight: 400;
}
.rich th,
.oily th,
.split th {
  color: var(--russet);
}
.small {
  font-size: 16px;
}
@media (max-width: 700px) {
  .way thead {
    display: none;
  }
  .way tr {
    display: grid;
    grid-template-columns: 1fr auto auto;
    align-items: baseline;
    gap: 0 10px;
    padding: 4px 0;
    border-bottom: 1px solid var(--fog2);
  }
  .way td,
  .way th {
    border: 0;
    padding: 0;
  }
  .way .n:nth-child(n + 3) {
    order: 2;
    text-align: left;
    color: var(--ink2);
  }
  .way .salt::before {
    content: 'salt ';
  }
}
</style>
