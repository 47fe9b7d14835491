/** What is being typed in a field: it stays as typed until the field is left, whatever comes back meanwhile. */
import { ref, watch } from 'vue'

/** Enter in an amount goes to the next one (Shift: the one before), in the same form, dialog or place; the last
 * of a form sends it. */
export function toNext(event: KeyboardEvent): void {
  const from = event.target as HTMLInputElement
  const around = from.closest('form, [role=dialog], main, body')
  const all = [...(around?.querySelectorAll<HTMLInputElement>('input[data-amount]') ?? [])].filter(
    (one) => !one.disabled && one.offsetParent !== null,
  )
  const next = all[all.indexOf(from) + (event.shiftKey ? -1 : 1)]
  if (next) {
    event.preventDefault()
    next.focus()
  } else from.blur()
}

export function useTyped(shown: () => string, wrong: () => unknown) {
  const text = ref(shown())
  const typing = ref(false)
  watch([shown, wrong], () => {
    if (!typing.value && !wrong()) text.value = shown()
  })
  /** The field is left: what was refused stays to be mended. */
  function settle(): void {
    typing.value = false
    if (!wrong()) text.value = shown()
  }
  return { text, typing, settle }
}
