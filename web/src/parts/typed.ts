/** What is being typed in a field: it stays as typed until the field is left, whatever comes back meanwhile. */
import { ref, watch } from 'vue'

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
