<script setup lang="ts">
/** Every saved version of the sauce; an older one can be opened and saved as the next. */
import { NButton } from 'naive-ui'
import { ref, watch } from 'vue'
import { api, ask, type Schemas, type Sheet } from '@/api/client'
import Dialog from '@/parts/Dialog.vue'
import { day, millilitres } from '@/parts/format'
import { useSession } from '@/shell/session'

const props = defineProps<{ sauceId: number; version: number }>()
const show = defineModel<boolean>('show', { required: true })
const emit = defineEmits<{ open: [sheet: Sheet] }>()
const session = useSession()
const versions = ref<Schemas['VersionOut'][]>([])
watch(show, async (now) => {
  if (now) {
    versions.value = await ask(
      api.GET('/api/sauces/{sauce_id}/versions', { params: { path: { sauce_id: props.sauceId } } }),
    )
  }
})
</script>

<template>
  <Dialog v-model:show="show" title="Versions" width="560px">
    <ul>
      <li v-for="v in versions" :key="v.number">
        <b>{{ v.number }}</b>
        <span>
          {{ session.gradeName(v.outcome.grade) || 'no grade' }}, {{ millilitres(v.outcome.volume_ml) }}
          <span class="quiet"
            >{{ day(v.made_at) }}<template v-if="v.made_by">, {{ v.made_by }}</template></span
          >
          <span v-if="v.note" class="quiet note">{{ v.note }}</span>
        </span>
        <span v-if="v.number === version" class="quiet">newest</span>
        <NButton v-else @click="(emit('open', v.sheet), (show = false))">Bring back</NButton>
      </li>
    </ul>
  </Dialog>
</template>

<style scoped>
.note {
  display: block;
}
ul {
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 36px 1fr auto;
  align-items: center;
  min-height: 52px;
  border-bottom: 1px solid var(--fog2);
}
</style>
