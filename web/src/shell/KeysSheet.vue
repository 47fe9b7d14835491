<script setup lang="ts">
/** The keys there are: those of the place one is in first, then those that go anywhere. */
import { computed } from 'vue'
import Dialog from '@/parts/Dialog.vue'
import { useRoute } from 'vue-router'
import { places } from '@/router'

const show = defineModel<boolean>('show', { required: true })
const route = useRoute()
type Keys = [key: string, does: string][]
const EDITING: Keys = [
  ['Ctrl S', 'save'],
  ['Ctrl Z', 'undo'],
  ['Ctrl Shift Z', 'redo'],
]
/** By where one is: the first that fits. */
const HERE: [at: RegExp, keys: Keys][] = [
  [/^\/sauces\/read$/, [['Enter', 'to the next amount']]],
  [
    /^\/sauces\/(new|\d+)/,
    [
      ['a', 'to the first amount'],
      ['Enter', 'in an amount: to the next one, with Shift to the one before'],
      ['↑ ↓', 'step before, step after'],
      ['Esc', 'no step chosen: the pot at its end'],
      ...EDITING,
    ],
  ],
  [
    /^\/sauces/,
    [
      ['/', 'search'],
      ['n', 'new sauce'],
    ],
  ],
  [/^\/dishes\/./, [['↑ ↓', 'on an edge of the picture: more, less'], ...EDITING]],
  [/^\/dishes/, [['n', 'new dish']]],
  [/^\/service\/./, [['Enter', 'in an amount: to the next one'], ...EDITING]],
  [/^\/service/, [['n', 'new service']]],
  [
    /^\/run-up\/./,
    [
      ['Esc', 'no task chosen'],
      ['Ctrl Z', 'undo'],
    ],
  ],
  [
    /^\/stove\/./,
    [
      ['space', 'move on'],
      ['backspace', 'step back'],
      ['t', 'start or stop the timer'],
      ['f', 'fix it'],
      ['n', 'write a note'],
      ['↑ ↓ Enter', 'on the pot: where its level stands'],
    ],
  ],
  [
    /^\/journal\/practice/,
    [
      ['a to f', 'an answer'],
      ['space', 'on the fire, off the fire'],
    ],
  ],
]
const here = computed(() => HERE.find(([at]) => at.test(route.path))?.[1] ?? [])
const everywhere: Keys = [
  ...places.map((place, i): Keys[number] => [String(i + 1), `go to ${place.name}`]),
  ['← → ↑ ↓', 'among choices and tabs'],
  ['?', 'this sheet'],
]
const groups = computed(() =>
  here.value.length
    ? [
        { name: 'Here', keys: here.value },
        { name: 'Everywhere', keys: everywhere },
      ]
    : [{ name: 'Everywhere', keys: everywhere }],
)
</script>

<template>
  <Dialog v-model:show="show" title="Keys" width="520px">
    <template v-for="group in groups" :key="group.name">
      <h2>{{ group.name }}</h2>
      <dl>
        <template v-for="[key, does] in group.keys" :key="key">
          <dt>
            <kbd>{{ key }}</kbd>
          </dt>
          <dd>{{ does }}</dd>
        </template>
      </dl>
    </template>
    <p class="quiet">A focused control keeps its own keys; while somebody types, these wait.</p>
  </Dialog>
</template>

<style scoped>
h2 {
  margin: 0 0 8px;
  font-size: 18px;
}
dl {
  display: grid;
  grid-template-columns: minmax(90px, max-content) 1fr;
  gap: 8px 16px;
  margin: 0 0 18px;
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
