<script setup lang="ts">
/** A device that several share asks who is cooking: one press, no password. */
import { NButton } from 'naive-ui'
import { ref } from 'vue'
import { RouterLink } from 'vue-router'
import { api, ask, type Schemas } from '@/api/client'
import Dialog from '@/parts/Dialog.vue'
import { useSession } from './session'

const show = defineModel<boolean>('show', { required: true })
const session = useSession()
const people = ref<Schemas['Person'][]>([])
const trouble = ref('')

async function load(): Promise<void> {
  try {
    people.value = (await ask(api.GET('/api/people'))).people
  } catch (error) {
    trouble.value = (error as Error).message
  }
}
void load()
async function pick(id: number): Promise<void> {
  try {
    await ask(api.PUT('/api/people/here/cooking', { body: { id } }))
    await session.reload()
    show.value = false
  } catch (error) {
    trouble.value = (error as Error).message
  }
}
</script>

<template>
  <Dialog
    :show="show && (people.length > 0 || trouble !== '')"
    title="Who is cooking?"
    width="720px"
    :closable="Boolean(session.who?.called)"
    @update:show="(on: boolean) => (show = on)"
  >
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    <div class="tiles">
      <!-- The dialog looks for a tabindex, and would begin at the link below. -->
      <button v-for="one in people" :key="one.id" type="button" tabindex="0" @click="pick(one.id)">
        {{ one.called }}
      </button>
    </div>
    <footer>
      <NButton v-if="session.who?.called || trouble" quaternary size="large" @click="show = false">
        {{ session.who?.called ? `Still ${session.who.called}` : 'Later' }}
      </NButton>
      <RouterLink to="/kitchen" @click="show = false">This device</RouterLink>
    </footer>
  </Dialog>
</template>

<style scoped>
.tiles {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  gap: 12px;
}
.tiles button {
  min-height: 88px;
  padding: 10px;
  border: 2px solid var(--ink);
  border-radius: 12px;
  background: var(--white);
  color: var(--ink);
  font: 600 24px/1.15 var(--display);
  overflow-wrap: anywhere;
  cursor: pointer;
}
.tiles button:hover,
.tiles button:focus-visible {
  background: var(--fog1);
}
footer {
  margin-top: 16px;
  display: flex;
  align-items: center;
  gap: 16px;
}
footer a {
  padding: 12px 4px;
}
</style>
