<script setup lang="ts">
import { NModal } from 'naive-ui'
import { places } from '@/router'

const show = defineModel<boolean>('show', { required: true })
const keys = [
  ...places.map((place, i) => [String(i + 1), `go to ${place.name}`]),
  ['/', 'search, in Sauces'],
  ['n', 'new sauce in Sauces, new dish in Dishes, new service in Service'],
  ['Ctrl S', 'save the sauce, the dish or the service'],
  ['↑ ↓', 'on an edge of a dish’s picture: more, less'],
  ['Ctrl Z', 'undo, Ctrl Shift Z redo, in a sauce, a dish or a service; undo in a run-up'],
  ['↑ ↓', 'step before, step after, in a sauce'],
  ['space', 'move on, at the stove'],
  ['backspace', 'step back, at the stove'],
  ['t', 'start or stop the timer, at the stove'],
  ['f', 'fix it, at the stove'],
  ['n', 'write a note, at the stove'],
  ['↑ ↓ Enter', 'on the pot at the stove: where its level stands'],
  ['?', 'this sheet'],
]
</script>

<template>
  <NModal v-model:show="show" preset="card" title="Keys" style="width: min(480px, 94vw)">
    <dl>
      <template v-for="[key, does] in keys" :key="key">
        <dt>
          <kbd>{{ key }}</kbd>
        </dt>
        <dd>{{ does }}</dd>
      </template>
    </dl>
  </NModal>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 8px 16px;
  margin: 0;
}
dd {
  margin: 0;
}
kbd {
  padding: 2px 8px;
  border: 1px solid var(--fog3);
  border-bottom-width: 3px;
  border-radius: 6px;
  background: var(--white);
  font: 600 15px var(--text);
}
</style>
