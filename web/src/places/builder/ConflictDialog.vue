<script setup lang="ts">
/** Somebody else saved meanwhile: what differs, and three ways on. Nothing is lost in any. */
import { NButton } from 'naive-ui'
import type { Schemas } from '@/api/client'
import Dialog from '@/parts/Dialog.vue'
import { timeOf } from '@/parts/format'

defineProps<{ conflict: Schemas['ConflictOut'] | null }>()
defineEmits<{ over: []; theirs: []; copy: []; close: [] }>()

function place(where: string): string {
  return where.replace(/steps\[(\d+)\]/g, (_, n) => `step ${Number(n) + 1}`).replace(/[._]/g, ' ')
}
</script>

<template>
  <Dialog
    :show="Boolean(conflict)"
    title="Saved from another window meanwhile"
    width="680px"
    @update:show="(show: boolean) => show || $emit('close')"
  >
    <template v-if="conflict">
      <p>
        {{ conflict.made_by ?? 'Somebody' }} saved version {{ conflict.version }} at {{ timeOf(conflict.made_at) }}.
        Where yours differs:
      </p>
      <table>
        <thead>
          <tr>
            <th>where</th>
            <th>theirs</th>
            <th>yours</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="d in conflict.differences" :key="d.where">
            <td>{{ place(d.where) }}</td>
            <td>{{ d.theirs ?? 'not there' }}</td>
            <td>
              <b>{{ d.yours ?? 'not there' }}</b>
            </td>
          </tr>
          <tr v-if="!conflict.differences.length">
            <td colspan="3">nothing: both are the same</td>
          </tr>
        </tbody>
      </table>
      <div class="ways">
        <NButton type="primary" @click="$emit('over')">Save mine as the next version</NButton>
        <NButton @click="$emit('copy')">Save mine as a new sauce</NButton>
        <NButton @click="$emit('theirs')">Take theirs</NButton>
      </div>
    </template>
  </Dialog>
</template>

<style scoped>
table {
  width: 100%;
  margin: 12px 0;
  border-collapse: collapse;
  display: block;
  max-height: 40vh;
  overflow: auto;
}
th {
  text-align: left;
  font-size: 14px;
  color: var(--ink2);
}
td,
th {
  padding: 6px 14px 6px 0;
  border-bottom: 1px solid var(--fog2);
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
