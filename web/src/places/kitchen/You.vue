<script setup lang="ts">
/** What you are called in records, your password, and every device you are signed in on. */
import { NButton, useMessage } from 'naive-ui'
import { reactive, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, ask, type Schemas } from '@/api/client'
import TextField from '@/parts/TextField.vue'
import { useForm } from '@/shell/form'
import { useSession } from '@/shell/session'

const props = defineProps<{ people: Schemas['People'] }>()
const emit = defineEmits<{ changed: [] }>()
const session = useSession()
const router = useRouter()
const message = useMessage()
const called = ref(props.people.people.find((one) => one.you)?.called ?? '')
const password = reactive({ old: '', new: '' })
const name = useForm()
const secret = useForm()

const rename = () =>
  name.run(async () => {
    await ask(api.PUT('/api/people/me/called', { body: { called: called.value } }))
    message.success('Records name you so from now on.')
    emit('changed')
  })
const change = () =>
  secret.run(async () => {
    await ask(api.POST('/api/people/me/password', { body: { ...password } }))
    Object.assign(password, { old: '', new: '' })
    message.success('Changed. Your other devices are signed out.')
  })
const everywhere = () =>
  secret.run(async () => {
    await ask(api.POST('/api/people/me/sign-out-everywhere'))
    await session.leave()
    await router.push('/enter')
  })
</script>

<template>
  <section class="sheet">
    <h2>You</h2>
    <form @submit.prevent="rename">
      <TextField
        label="Called in records"
        :value="called"
        :most="60"
        :problem="name.problemAt('called')"
        @change="called = $event"
      />
      <NButton attr-type="submit" :loading="name.busy.value">Call me so</NButton>
    </form>
    <form @submit.prevent="change">
      <TextField
        label="Your password"
        type="password"
        :value="password.old"
        autocomplete="current-password"
        :problem="secret.problemAt('old')"
        @change="password.old = $event"
      />
      <TextField
        label="A new password"
        type="password"
        :value="password.new"
        autocomplete="new-password"
        :problem="secret.problemAt('new')"
        @change="password.new = $event"
      />
      <div class="actions">
        <NButton attr-type="submit" :loading="secret.busy.value">Change the password</NButton>
        <NButton :loading="secret.busy.value" @click="everywhere">Sign out everywhere</NButton>
      </div>
    </form>
    <p v-if="name.trouble.value || secret.trouble.value" class="problem" role="alert">
      {{ name.trouble.value || secret.trouble.value }}
    </p>
  </section>
</template>

<style scoped>
form {
  display: flex;
  flex-direction: column;
  align-items: stretch;
  gap: 10px;
}
form + form {
  padding-top: 12px;
  border-top: 1px solid var(--fog2);
}
form > :deep(.n-button) {
  align-self: start;
}
</style>
