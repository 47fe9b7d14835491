<script setup lang="ts">
/** Pots → sauces → dishes: widths by volume, every one to be pressed for its figures. */
import { sankey, sankeyLinkHorizontal } from 'd3-sankey'
import { computed } from 'vue'
import { millilitres } from '@/parts/format'
import { useSession } from '@/shell/session'
import { goesWithout, lineKey, type Plan } from './service'

const props = defineProps<{ plan: Plan; chosen: string | null }>()
const emit = defineEmits<{ choose: [key: string] }>()
const session = useSession()

interface Node {
  key: string
  column: number
  name: string
  more: string
  kind: 'pot' | 'sauce' | 'dish'
  order: number
}
interface Link {
  source: number
  target: number
  value: number
}
const WIDTH = 880
const BAR = 14
const height = computed(() => {
  const most = Math.max(props.plan.pots.length, props.plan.branches.length, props.plan.lines.length)
  return Math.max(220, most * 54)
})
const made = computed(() => {
  const nodes: Node[] = []
  const at = new Map<string, number>()
  const put = (node: Omit<Node, 'order'>) => {
    at.set(node.key, nodes.length)
    nodes.push({ ...node, order: nodes.length })
  }
  for (const pot of props.plan.pots) {
    const times = pot.batches > 1 ? `${pot.batches} × ` : ''
    put({
      key: pot.key,
      column: 0,
      name: pot.mother ? pot.name : 'a pot of its own',
      more: `${times}${millilitres(pot.made_ml / pot.batches)} in ${pot.in_pan}`,
      kind: 'pot',
    })
  }
  for (const branch of props.plan.branches) {
    put({
      key: branch.key,
      column: 1,
      name: branch.name,
      more: `${millilitres(branch.made_ml || branch.from_stock_ml)} ${session.gradeName(branch.grade)}`,
      kind: 'sauce',
    })
  }
  props.plan.lines.forEach((line, i) => {
    put({
      key: lineKey(i),
      column: 2,
      name: line.name,
      more: `${line.line.portions} portions${line.line.without?.length ? `, ${goesWithout(line.line.without)}` : ''}${line.refused ? ', not served yet' : ''}`,
      kind: 'dish',
    })
  })
  const links: Link[] = []
  for (const branch of props.plan.branches) {
    const to = at.get(branch.key)!
    if (at.has(branch.pot)) links.push({ source: at.get(branch.pot)!, target: to, value: Math.max(1, branch.made_ml) })
    const byLine = new Map<number, number>()
    for (const one of branch.asked) byLine.set(one.line, (byLine.get(one.line) ?? 0) + one.need.volume_ml)
    for (const [line, ml] of byLine) links.push({ source: to, target: at.get(lineKey(line))!, value: Math.max(1, ml) })
  }
  if (!links.length) return null
  const layout = sankey<Node, Link>()
    .nodeWidth(BAR)
    .nodePadding(35)
    .nodeAlign((node) => node.column)
    .extent([
      [2, 22],
      [WIDTH - 216, height.value - 26],
    ])
  return layout({ nodes, links })
})
const curve = sankeyLinkHorizontal<Node, Link>()
/** Lit: what the chosen one is joined to. */
function lit(link: { source: unknown; target: unknown }): boolean {
  if (!props.chosen) return false
  const ends = [link.source, link.target] as Node[]
  return ends.some((end) => end.key === props.chosen)
}
/** Letters that fit beside a bar of each column, and the lines a name takes at most. */
const LETTERS = [44, 42, 29]
const LINE = 17
function wrapped(text: string, most: number): string[] {
  if (text.length <= most) return [text]
  const at = text.lastIndexOf(' ', most)
  const cut = at > 0 ? at : most
  const rest = text.slice(cut).trim()
  return [text.slice(0, cut), rest.length > most ? `${rest.slice(0, most - 1)}…` : rest]
}
/** A node's words, line by line, about the middle of its bar. */
function words(node: Node & { y0?: number; y1?: number }) {
  const name = wrapped(node.name, LETTERS[node.column]!)
  const lines = [...name, ...wrapped(node.more, LETTERS[node.column]!)]
  const top = (node.y0! + node.y1!) / 2 - (lines.length * LINE) / 2 + 13
  return lines.map((text, i) => ({ text, y: top + i * LINE, more: i >= name.length }))
}
</script>

<template>
  <svg
    v-if="made"
    :viewBox="`0 0 ${WIDTH} ${height}`"
    class="flow"
    role="group"
    aria-label="From pots over sauces to dishes"
  >
    <path
      v-for="(link, i) in made.links"
      :key="i"
      :d="curve(link) ?? ''"
      :stroke-width="Math.max(2, link.width ?? 1)"
      :class="{ lit: lit(link) }"
    />
    <g
      v-for="node in made.nodes"
      :key="node.key"
      role="button"
      tabindex="0"
      :aria-pressed="chosen === node.key"
      :class="[node.kind, { chosen: chosen === node.key }]"
      @click="emit('choose', node.key)"
      @keydown.enter="emit('choose', node.key)"
    >
      <rect
        :x="node.x0! - 6"
        :y="node.y0! - 22"
        :width="Math.min(250, WIDTH - node.x0!)"
        :height="Math.max(44, node.y1! - node.y0! + 26)"
        fill="transparent"
      />
      <rect class="bar" :x="node.x0" :y="node.y0" :width="BAR" :height="Math.max(3, node.y1! - node.y0!)" rx="3" />
      <text v-for="line in words(node)" :key="line.y" :x="node.x1! + 7" :y="line.y" :class="{ more: line.more }">
        {{ `${line.text} ` }}
      </text>
    </g>
  </svg>
</template>

<style scoped>
.flow {
  display: block;
  width: 100%;
  max-width: 1120px;
  height: auto;
}
path {
  fill: none;
  stroke: var(--sauce);
  stroke-opacity: 0.85;
}
.lit {
  stroke: var(--butter);
  stroke-opacity: 1;
}
g {
  cursor: pointer;
  outline: none;
}
.bar {
  fill: var(--ink2);
}
.pot .bar {
  fill: var(--russet);
}
.dish .bar {
  fill: var(--leaf);
}
.chosen .bar,
g:focus-visible .bar {
  stroke: var(--ink);
  stroke-width: 4;
}
text {
  font: 600 14px var(--text);
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--fog1);
  stroke-width: 3px;
}
.more {
  font-weight: 500;
  fill: var(--ink2);
}
.chosen text {
  font-weight: 800;
}
</style>
