/** A long list read a page at a time: the next page is read as the end of what is there comes near. */
import { useIntersectionObserver } from '@vueuse/core'
import { computed, ref, shallowRef } from 'vue'

export interface Page<Row> {
  rows: Row[]
  total: number
}
const PAGE = 40
const MOST = 200

export function usePages<Row>(read: (span: { offset: number; most: number }) => Promise<Page<Row>>) {
  const rows = shallowRef<Row[] | null>(null)
  const total = ref(0)
  /** An element after the last row: seen, it asks for more. */
  const end = ref<HTMLElement | null>(null)
  const left = computed(() => total.value - (rows.value?.length ?? 0))
  let asked = 0
  let reading = false

  /** Reads it anew from the top: as much as is there, so that nothing jumps away under the hand. */
  async function load(fromTop = false): Promise<void> {
    const mine = ++asked
    const most = fromTop ? PAGE : Math.min(MOST, Math.max(PAGE, rows.value?.length ?? 0))
    const page = await read({ offset: 0, most })
    if (mine !== asked) return // a later search has been asked meanwhile
    rows.value = page.rows
    total.value = page.total
  }
  async function more(): Promise<void> {
    if (reading || !rows.value || left.value <= 0) return
    reading = true
    const mine = asked
    try {
      const page = await read({ offset: rows.value.length, most: PAGE })
      if (mine === asked) rows.value = [...rows.value, ...page.rows]
      total.value = page.total
    } catch {
      // The list stands as it is; scrolling or the button asks again.
    } finally {
      reading = false
    }
  }
  useIntersectionObserver(end, ([entry]) => entry?.isIntersecting && void more(), { rootMargin: '600px' })
  return { rows, total, end, left, load, more }
}
