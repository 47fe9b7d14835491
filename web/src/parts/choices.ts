/** Radio buttons and tabs as a keyboard and a screen reader know them: one stop for the tab key, arrows go on. */
import type { Directive } from 'vue'

const MEMBERS = '[role=radio], [role=tab]'
const STEPS: Record<string, number> = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }

const members = (group: HTMLElement) =>
  [...group.querySelectorAll<HTMLElement>(MEMBERS)].filter((one) => !(one as HTMLButtonElement).disabled)
const chosen = (one: HTMLElement) =>
  one.getAttribute('aria-checked') === 'true' || one.getAttribute('aria-selected') === 'true'

function oneStop(group: HTMLElement): void {
  const all = members(group)
  const stop = all.find(chosen) ?? all[0]
  for (const one of all) one.tabIndex = one === stop ? 0 : -1
}
function onArrow(event: KeyboardEvent): void {
  const group = event.currentTarget as HTMLElement
  const all = members(group)
  const at = all.indexOf(event.target as HTMLElement)
  if (at < 0 || event.ctrlKey || event.metaKey || event.altKey) return
  let to: number
  if (event.key === 'Home') to = 0
  else if (event.key === 'End') to = all.length - 1
  else if (event.key in STEPS) to = (at + STEPS[event.key]! + all.length) % all.length
  else return
  event.preventDefault()
  all[to]!.focus()
  all[to]!.click()
}

/** On the element with `role="radiogroup"` or `role="tablist"`. */
export const vChoices: Directive<HTMLElement> = {
  mounted(group) {
    oneStop(group)
    group.addEventListener('keydown', onArrow)
  },
  updated: oneStop,
  unmounted: (group) => group.removeEventListener('keydown', onArrow),
}
