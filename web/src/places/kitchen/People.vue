<script setup lang="ts">
/** Who belongs to the kitchen. Owners invite by a link that is good for three days, and let go. */
import { NButton, useMessage } from 'naive-ui'
import { computed, ref } from 'vue'
import { api, ask, type Schemas } from '@/api/client'
import { moment } from '@/parts/format'
import { useForm } from '@/shell/form'

const props = defineProps<{ people: Schemas['People'] }>()
const emit = defineEmits<{ changed: [] }>()
const message = useMessage()
const { trouble, problems, busy, run } = useForm()
const made = ref<Schemas['InviteMade'] | null>(null)
const asking = ref<number | null>(null)
const link = computed(() => (made.value ? new URL(made.value.path, location.origin).href : ''))

const invite = (for_id: number | null) =>
  run(async () => {
    made.value = await ask(api.POST('/api/people/invites', { body: { for_id } }))
    emit('changed')
  })
const takeBack = (invite_id: number) =>
  run(async () => {
    await ask(api.DELETE('/api/people/invites/{invite_id}', { params: { path: { invite_id } } }))
    if (made.value?.id === invite_id) made.value = null
    emit('changed')
  })
const own = (one: Schemas['Person']) =>
  run(async () => {
    const params = { path: { user_id: one.id } }
    await ask(api.PUT('/api/people/{user_id}', { params, body: { owner: !one.owner } }))
    emit('changed')
  })
const letGo = (one: Schemas['Person']) =>
  run(async () => {
    await ask(api.DELETE('/api/people/{user_id}', { params: { path: { user_id: one.id } } }))
    asking.value = null
    message.info(`${one.called} is signed out everywhere. Records go on naming them.`)
    emit('changed')
  })
async function copyLink(): Promise<void> {
  try {
    await navigator.clipboard.writeText(link.value)
    message.success('Copied.')
  } catch {
    message.info('Mark the link and copy it.')
  }
}
const others = computed(() => props.people.people.filter((one) => !one.you).length)
</script>

<template>
  <section class="sheet people">
    <h2>People</h2>
    <ul>
      <li v-for="one in people.people" :key="one.id">
        <span class="who">
          <b>{{ one.called }}</b>
          <span class="quiet">
            {{ one.called === one.username ? '' : one.username }} {{ one.owner ? 'owner' : '' }}
            {{ one.you ? '(you)' : '' }}
          </span>
        </span>
        <span v-if="people.may && !one.you" class="actions">
          <template v-if="asking === one.id">
            <NButton type="primary" :loading="busy" @click="letGo(one)">Let {{ one.called }} go</NButton>
            <NButton @click="asking = null">Keep</NButton>
          </template>
          <template v-else>
            <NButton quaternary @click="invite(one.id)">New password</NButton>
            <NButton quaternary @click="own(one)">{{ one.owner ? 'No longer owner' : 'Make owner' }}</NButton>
            <NButton quaternary @click="asking = one.id">Let go</NButton>
          </template>
        </span>
      </li>
    </ul>
    <p v-if="!others" class="quiet">Only you so far. What each cook does carries their name once they are here.</p>
    <template v-if="people.may">
      <div v-if="made" class="link" role="status">
        <p>
          {{ made.for_name ? `For ${made.for_name}, a new password:` : 'Give this link to who is to come:' }}
        </p>
        <code>{{ link }}</code>
        <div class="actions">
          <NButton type="primary" @click="copyLink">Copy it</NButton>
          <span class="quiet">Good once, until {{ moment(made.expires_at) }}. It is shown only now.</span>
        </div>
      </div>
      <NButton size="large" :loading="busy" @click="invite(null)">Invite somebody</NButton>
      <ul v-if="people.invites.length" class="open">
        <li v-for="one in people.invites" :key="one.id">
          <span>
            {{ one.for_name ? `New password for ${one.for_name}` : 'Invitation' }}
            <span class="quiet">by {{ one.made_by }}, until {{ moment(one.expires_at) }}</span>
          </span>
          <NButton quaternary @click="takeBack(one.id)">Take back</NButton>
        </li>
      </ul>
    </template>
    <p v-for="one in problems" :key="one.code" class="problem" role="alert">{{ one.message }}. {{ one.remedy }}.</p>
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
  </section>
</template>

<style scoped>
ul {
  display: flex;
  flex-direction: column;
  gap: 6px;
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 6px;
  min-height: 44px;
}
.who b {
  margin-right: 6px;
  font-size: 18px;
}
.link {
  display: flex;
  flex-direction: column;
  gap: 8px;
  padding: 12px;
  border-radius: 10px;
  background: var(--fog1);
}
code {
  padding: 8px;
  background: var(--white);
  overflow-wrap: anywhere;
  user-select: all;
}
.people > :deep(.n-button) {
  align-self: start;
}
.actions {
  align-items: center;
}
</style>
