/** Keys that act only when nobody is typing. */
import { useEventListener } from '@vueuse/core'

function typing(target: EventTarget | null): boolean {
  const at = target as HTMLElement | null
  return Boolean(at?.closest('input, textarea, select, [contenteditable=true], [role=dialog], .n-base-selection'))
}

/** Calls `act` with the key unless somebody types; `act` says whether it used it. */
export function onKey(act: (key: string, event: KeyboardEvent) => boolean): void {
  useEventListener(window, 'keydown', (event: KeyboardEvent) => {
    if (event.defaultPrevented || event.ctrlKey || event.metaKey || event.altKey) return
    if (typing(event.target)) return
    if (act(event.key, event)) event.preventDefault()
  })
}
