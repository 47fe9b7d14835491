/** A list read from the server: what went wrong in reading it, and acts on it after which it is read again. */
import { useMessage } from 'naive-ui'
import { onMounted, ref } from 'vue'

export function useList(read: () => Promise<void>) {
  const message = useMessage()
  const trouble = ref('')
  async function load(): Promise<void> {
    try {
      await read()
      trouble.value = ''
    } catch (error) {
      trouble.value = (error as Error).message
    }
  }
  /** Does something with what is listed; what is refused is told. */
  async function tell(work: () => Promise<unknown>): Promise<void> {
    try {
      await work()
    } catch (error) {
      message.error((error as Error).message)
    }
    await load()
  }
  onMounted(load)
  return { trouble, load, tell }
}
