/** What was taken off a list is told, with a way to bring it back. */
import { NButton, useMessage } from 'naive-ui'
import { h } from 'vue'

export function useOffList() {
  const message = useMessage()
  return (name: string, bringBack: () => Promise<unknown>): void => {
    const back = () => {
      said.destroy()
      void bringBack()
    }
    const said = message.info(
      () =>
        h('span', { class: 'undo' }, [
          `“${name}” is off the list. `,
          h(NButton, { size: 'small', onClick: back }, () => 'Bring it back'),
        ]),
      { duration: 12_000, closable: true },
    )
  }
}
