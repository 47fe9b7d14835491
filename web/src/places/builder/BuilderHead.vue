<script setup lang="ts">
/** Top of the builder: the sauce's name, whether it is saved, and what can be done with it. */
import { NButton, NDropdown, useMessage } from 'naive-ui'
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import { api, ask } from '@/api/client'
import { saveFile } from '@/parts/file'
import type { Draft, LooseSheet } from './draft'
import ProblemLine from '@/parts/ProblemLine.vue'

const props = defineProps<{ draft: Draft; saving: boolean }>()
const emit = defineEmits<{ whatIf: []; fix: []; versions: []; save: []; cook: [] }>()
const router = useRouter()
const message = useMessage()
const { sheet, worked, problems, stored, dirty, restored, past, future } = props.draft

const nothing = computed(() => !sheet.value.steps?.length)
const nameProblem = computed(() => props.draft.problemAt('name'))
const status = computed(() => {
  if (problems.value.length) return 'one entry needs mending; the last good picture stands'
  if (!stored.value) return 'not saved yet'
  return dirty.value ? `changed since version ${stored.value.base}` : `saved, version ${stored.value.base}`
})

async function download(form: string): Promise<void> {
  try {
    const made = await ask(api.POST('/api/work/write', { body: { sheet: worked.value!.sheet as LooseSheet, form } }))
    saveFile(String(sheet.value.name), made)
  } catch (error) {
    message.error((error as Error).message)
  }
}
/** The sauce itself in an address: opened here, or pasted into another kitchen's reader. */
async function copyLink(): Promise<void> {
  try {
    const body = { sheet: worked.value!.sheet as LooseSheet, form: 'link' }
    const made = await ask(api.POST('/api/work/write', { body }))
    const link = `${location.origin}/sauces/read${made.text}`
    try {
      await navigator.clipboard.writeText(link)
      message.success('The link is copied: it holds the whole sauce.')
    } catch {
      // A plain address gives no clipboard: the link as a file serves as well.
      saveFile(String(sheet.value.name), { ...made, text: link })
    }
  } catch (error) {
    message.error((error as Error).message)
  }
}
const more = computed(() => [
  { key: 'versions', label: 'Versions…', disabled: !stored.value },
  { key: 'discard', label: 'Throw unsaved changes away', disabled: !stored.value || !dirty.value },
  {
    key: 'download',
    label: 'Download as',
    children: [
      { key: 'sheet', label: 'Sheet (JSON, everything)' },
      { key: 'json-ld', label: 'Recipe (JSON-LD)' },
      { key: 'markdown', label: 'Markdown' },
    ],
  },
  { key: 'link', label: 'Copy as a link', disabled: nothing.value },
  {
    key: 'card',
    label: 'Card to print',
    children: ['A5', 'A4'].map((size) => ({ key: size, label: size, disabled: !stored.value || dirty.value })),
  },
])
function act(key: string): void {
  if (key === 'versions') emit('versions')
  else if (key === 'link') void copyLink()
  else if (key === 'discard') void props.draft.discard()
  else if (key === 'A5' || key === 'A4') void router.push(`/sauces/${stored.value?.id}/card?size=${key}`)
  else void download(key)
}
</script>

<template>
  <header class="head">
    <h1 class="unseen">{{ sheet.name || 'A sauce' }}</h1>
    <div class="naming">
      <input
        class="title short"
        :value="sheet.name"
        aria-label="Name of the sauce"
        maxlength="120"
        @input="draft.edit((s) => (s.name = ($event.target as HTMLInputElement).value), 'name')"
      />
      <ProblemLine v-if="nameProblem" :problem="nameProblem" subject="The name" />
      <span v-else class="quiet status">
        {{ status }}<template v-if="restored && dirty"> · unsaved changes were brought back</template>
      </span>
    </div>
    <div class="buttons no-print">
      <NButton :disabled="!past.length" aria-label="Undo" title="Undo (Ctrl Z)" @click="draft.undo">↶</NButton>
      <NButton :disabled="!future.length" aria-label="Redo" title="Redo (Ctrl Shift Z)" @click="draft.redo">↷</NButton>
      <NButton :disabled="nothing" @click="emit('whatIf')">What if</NButton>
      <NButton :disabled="nothing" @click="emit('fix')">Fix it</NButton>
      <NDropdown trigger="click" :options="more" @select="act">
        <NButton aria-label="More">More</NButton>
      </NDropdown>
      <NButton :loading="saving" :disabled="!dirty" @click="emit('save')">Save</NButton>
      <NButton type="primary" :disabled="nothing || problems.length > 0" @click="emit('cook')">Cook it</NButton>
    </div>
  </header>
</template>

<style scoped>
.head {
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 8px 14px;
  border-bottom: 1px solid var(--fog2);
  background: var(--fog0);
}
.naming {
  flex: 1;
  min-width: 0;
}
.short {
  min-height: 36px;
}
.status {
  padding-left: 7px;
  font-size: 14px;
}
.naming .problem {
  padding-left: 7px;
}
.buttons {
  display: flex;
  gap: 8px;
}
@media (max-width: 1000px) {
  .head {
    flex-wrap: wrap;
  }
  .naming {
    flex-basis: 100%;
  }
  .buttons {
    flex-wrap: wrap;
  }
}
</style>
