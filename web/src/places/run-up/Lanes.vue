<script setup lang="ts">
/** The picture of a run-up: lanes by cook and by thing over the clock. What wants a cook throughout is
 * solid with a bar on top; what is looked after is a thin line; what stands ready is hatched, with its limit. */
import { useElementSize } from '@vueuse/core'
import { computed, ref, useTemplateRef } from 'vue'
import { hoursOf, lanesOf, type Bar } from './lanes'
import { clockOf, type Block, type Day } from './run-up'

const props = defineProps<{
  day: Day
  cooks: string[]
  rings: string[]
  served: number[]
  now: number | null
  chosen: string | null
  pans: boolean
  zoom: number
}>()
const emit = defineEmits<{ choose: [key: string | null]; move: [key: string, at: number] }>()

const LABEL = 112
const HANDS = 40
const WATCH = 13
const THING = 26
const root = useTemplateRef<HTMLElement>('root')
const { width } = useElementSize(root)
const begin = computed(() => Math.floor((props.day.begin - 5) / 10) * 10)
const end = computed(() => Math.ceil((Math.max(props.day.end, ...props.served) + 5) / 10) * 10)
const perMinute = computed(
  () => (Math.max(260, (width.value || 900) - LABEL - 4) / (end.value - begin.value)) * props.zoom,
)
const x = (minute: number) => (minute - begin.value) * perMinute.value
const lanes = computed(() => lanesOf(props.day, props.cooks, props.rings, props.pans))
const hours = computed(() => hoursOf(begin.value, end.value, perMinute.value))
const heightOf = (pool: string, rows: number) => (pool === 'cook' ? HANDS + 6 + (rows - 1) * WATCH : THING + 4)
const tied = computed(() => {
  const block = props.day.blocks.find((one) => one.key === props.chosen)
  if (!block) return null
  const after = new Set(block.after)
  const until = new Set(block.waits.map((wait) => wait.until).filter(Boolean))
  return { after, until }
})
function roleOf(block: Block): string {
  if (!props.chosen || !tied.value) return ''
  if (block.key === props.chosen) return 'chosen'
  if (tied.value.after.has(block.key)) return 'before'
  if (tied.value.until.has(block.key)) return 'follows'
  return 'aside'
}
const drag = ref<{ key: string; from: number; by: number; moved: boolean } | null>(null)
function down(bar: Bar, event: PointerEvent): void {
  if (bar.kind !== 'hands' || bar.block.state === 'done') return
  ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
  drag.value = { key: bar.block.key, from: event.clientX, by: 0, moved: false }
}
function over(event: PointerEvent): void {
  if (!drag.value) return
  drag.value.by = event.clientX - drag.value.from
  if (Math.abs(drag.value.by) > 6) drag.value.moved = true
}
function up(bar: Bar): void {
  const was = drag.value
  drag.value = null
  if (was?.moved) {
    const at = Math.round((bar.block.start + was.by / perMinute.value) * 2) / 2
    emit('move', bar.block.key, at)
  } else emit('choose', bar.block.key === props.chosen ? null : bar.block.key)
}
const style = (bar: Bar) => {
  const by = drag.value?.key === bar.block.key && drag.value.moved ? drag.value.by : 0
  const top = bar.kind === 'watch' ? HANDS + 2 + (bar.row - 1) * WATCH : bar.kind === 'touch' ? 0 : 3
  return {
    left: `${x(bar.start) + by}px`,
    width: `${Math.max(bar.kind === 'touch' ? 8 : 3, (bar.end - bar.start) * perMinute.value - 1)}px`,
    top: `${top}px`,
  }
}
const told = (bar: Bar) => `${clockOf(bar.start)} to ${clockOf(bar.end)}, ${bar.block.name}`
const wide = (bar: Bar) => (bar.end - bar.start) * perMinute.value > 34
</script>

<template>
  <div ref="root" class="lanes" role="group" aria-label="The plan over the clock">
    <div class="canvas" :style="{ width: `${LABEL + x(end)}px` }">
      <div class="hours" :style="{ marginLeft: `${LABEL}px` }">
        <span v-for="at in hours" :key="at" :style="{ left: `${x(at)}px` }">{{ clockOf(at) }}</span>
      </div>
      <div
        v-for="lane in lanes"
        :key="lane.pool + lane.name"
        class="lane"
        :class="lane.pool"
        :style="{ height: `${heightOf(lane.pool, lane.rows)}px` }"
      >
        <span class="name">{{ lane.name }}</span>
        <div class="track" :style="{ left: `${LABEL}px`, width: `${x(end)}px` }">
          <template v-for="(bar, n) in lane.bars" :key="`${bar.block.key}${bar.kind}${n}`">
            <button
              v-if="bar.kind === 'hands' || bar.kind === 'thing'"
              class="bar"
              :class="[
                bar.kind,
                bar.block.kind,
                roleOf(bar.block),
                bar.block.state,
                { pinned: bar.block.pinned, dragged: drag?.key === bar.block.key && drag.moved },
              ]"
              :style="style(bar)"
              :aria-label="told(bar)"
              :aria-pressed="bar.block.key === chosen"
              :title="told(bar)"
              @pointerdown="down(bar, $event)"
              @pointermove="over"
              @pointerup="up(bar)"
              @pointercancel="drag = null"
              @keydown.enter.prevent="emit('choose', bar.block.key)"
              @keydown.space.prevent="emit('choose', bar.block.key)"
              @click="bar.kind === 'thing' && emit('choose', bar.block.key === chosen ? null : bar.block.key)"
            >
              <span v-if="wide(bar)">{{ bar.block.name }}</span>
            </button>
            <span
              v-else
              class="bar"
              :class="[bar.kind, roleOf(bar.block), { harmed: bar.harmed }]"
              :style="style(bar)"
              :title="told(bar)"
            ></span>
            <span
              v-if="bar.kind === 'wait' && bar.limit !== undefined && bar.limit <= end"
              class="limit"
              :style="{ left: `${x(bar.limit)}px` }"
              :title="`may stand until ${clockOf(bar.limit)}`"
            ></span>
          </template>
        </div>
      </div>
      <span
        v-for="at in served"
        :key="`s${at}`"
        class="served"
        :style="{ left: `${LABEL + x(at)}px` }"
        :title="`served at ${clockOf(at)}`"
        ><b>{{ clockOf(at) }}</b></span
      >
      <span
        v-if="now !== null && now >= begin && now <= end"
        class="now"
        :style="{ left: `${LABEL + x(now)}px` }"
        aria-hidden="true"
        ><b>now</b></span
      >
      <span v-for="at in hours" :key="`h${at}`" class="hour" :style="{ left: `${LABEL + x(at)}px` }"></span>
    </div>
  </div>
</template>

<style scoped>
.lanes {
  overflow-x: auto;
  border: 1px solid var(--fog2);
  border-radius: 12px;
  background: var(--fog0);
}
.canvas {
  position: relative;
  padding-bottom: 6px;
}
.hours {
  position: relative;
  height: 40px;
}
.hours span {
  position: absolute;
  bottom: 2px;
  transform: translateX(-50%);
  font-size: 13px;
  color: var(--ink2);
}
.lane {
  position: relative;
  border-top: 1px solid var(--fog2);
}
.lane .name {
  position: sticky;
  left: 0;
  z-index: 4;
  display: inline-block;
  width: 112px;
  height: 100%;
  padding: 2px 8px;
  overflow: hidden;
  background: var(--fog0);
  font-size: 14px;
  line-height: 1.25;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.cook .name {
  padding-top: 8px;
  font: 600 19px var(--display);
}
.track {
  position: absolute;
  top: 0;
  bottom: 0;
}
.bar {
  position: absolute;
  display: block;
  height: 24px;
  min-width: 3px;
  padding: 0 3px;
  overflow: hidden;
  border: 1px solid var(--ink2);
  border-radius: 4px;
  background: var(--fog2);
  color: var(--ink);
  font-size: 12.5px;
  line-height: 1.1;
  text-align: left;
  touch-action: none;
}
button.bar {
  z-index: 2;
  cursor: pointer;
}
.bar.thing {
  white-space: nowrap;
  line-height: 1.6;
}
.bar.hands span {
  display: -webkit-box;
  overflow: hidden;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
}
.bar.hands {
  height: 38px;
  border-color: var(--ink);
  border-top: 5px solid var(--russet);
  background: var(--white);
  font-weight: 600;
}
.bar.hands.pot,
.bar.hands.side {
  background: var(--butter-wash);
}
.bar.thing.pot,
.bar.thing.side {
  background: var(--butter-wash);
  border-color: var(--butter);
}
.bar.watch {
  height: 9px;
  padding: 0;
  border: 2px solid var(--butter);
  border-radius: 5px;
  background: transparent;
}
.bar.touch {
  z-index: 3;
  width: 8px;
  height: 12px;
  padding: 0;
  border: 0;
  border-radius: 2px;
  background: var(--ink);
  transform: translateX(-2px) rotate(45deg) scale(0.75);
}
.bar.wait {
  z-index: 1;
  border-style: dashed;
  background: repeating-linear-gradient(45deg, transparent 0 5px, var(--fog3) 5px 7px);
}
.bar.wait.harmed {
  border-color: var(--danger);
}
.limit {
  position: absolute;
  top: 0;
  bottom: 0;
  border-left: 3px double var(--ink);
}
.bar.done {
  background: var(--leaf-wash);
  border-color: var(--leaf);
  text-decoration: line-through;
}
.bar.going {
  background: var(--butter);
}
.bar.pinned::after {
  content: '●';
  position: absolute;
  right: 2px;
  bottom: 0;
  color: var(--russet);
  font-size: 10px;
}
.bar.chosen {
  z-index: 3;
  outline: 3px solid var(--russet);
  outline-offset: 1px;
}
.bar.before {
  outline: 2px dashed var(--ink);
}
.bar.follows {
  outline: 2px solid var(--ink);
}
.bar.aside {
  opacity: 0.45;
}
.bar.dragged {
  z-index: 5;
  opacity: 0.8;
  cursor: grabbing;
}
.served,
.now,
.hour {
  position: absolute;
  top: 40px;
  bottom: 0;
  pointer-events: none;
}
.hour {
  border-left: 1px solid var(--fog2);
}
.served {
  top: 0;
  z-index: 3;
  border-left: 3px solid var(--leaf);
}
.now {
  top: 0;
  z-index: 3;
  border-left: 3px solid var(--russet);
}
.served b,
.now b {
  position: absolute;
  top: 1px;
  left: 2px;
  padding: 0 5px;
  border-radius: 4px;
  background: var(--leaf);
  color: var(--white);
  font-size: 13px;
  white-space: nowrap;
}
.now b {
  background: var(--russet);
}
</style>
