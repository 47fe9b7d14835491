/** Keys: those that act only when nobody is typing, and those of editing. */
import { useEventListener } from '@vueuse/core'
import { onScopeDispose } from 'vue'

function typing(target: EventTarget | null): boolean {
  const at = target as HTMLElement | null
  return Boolean(at?.closest('input, textarea, select, [contenteditable=true], [role=dialog], .n-base-selection'))
}

const PRESSED = 'button, a[href], summary, label, [role=button], [role=tab], [role=radio], [role=switch]'
const MOVED = '[role=slider], [role=radiogroup], [role=tablist], [role=listbox], [role=menu], video, audio'
/** Whether what has the focus wants the key for itself: space presses a button, arrows move a slider. */
function kept(key: string, target: EventTarget | null): boolean {
  const at = target as HTMLElement | null
  if (key === ' ' || key === 'Enter') return Boolean(at?.closest?.(`${PRESSED}, ${MOVED}`))
  return /^(Arrow|Home|End|Page)/.test(key) && Boolean(at?.closest?.(MOVED))
}

/** Calls `act` with the key unless somebody types or a focused control wants it; `act` says whether it used it. */
export function onKey(act: (key: string, event: KeyboardEvent) => boolean): void {
  useEventListener(window, 'keydown', (event: KeyboardEvent) => {
    if (event.defaultPrevented || event.ctrlKey || event.metaKey || event.altKey) return
    if (typing(event.target) || kept(event.key, event.target)) return
    if (act(event.key, event)) event.preventDefault()
  })
}

interface EditKeys {
  save: () => void
  undo: () => void
  redo: () => void
}
/** The documents open for editing, the one in front last. */
const inFront: EditKeys[] = []

/** Ctrl S, Ctrl Z, Ctrl Shift Z or Ctrl Y, also while typing; they reach the document in front. */
export function onEditKeys(keys: EditKeys): void {
  inFront.push(keys)
  onScopeDispose(() => inFront.splice(inFront.indexOf(keys), 1))
  useEventListener(window, 'keydown', (event: KeyboardEvent) => {
    if (!(event.ctrlKey || event.metaKey) || inFront.at(-1) !== keys || event.defaultPrevented) return
    const key = event.key.toLowerCase()
    if (key === 's') keys.save()
    else if ((key === 'z' && event.shiftKey) || key === 'y') keys.redo()
    else if (key === 'z') keys.undo()
    else return
    event.preventDefault()
  })
}
