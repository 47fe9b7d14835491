/** A note spoken instead of typed, where the browser can take dictation. */
import { onScopeDispose, ref } from 'vue'

interface Heard {
  results: ArrayLike<ArrayLike<{ transcript: string }>>
}
interface Recognition {
  lang: string
  onresult: ((heard: Heard) => void) | null
  onend: (() => void) | null
  onerror: (() => void) | null
  start(): void
  stop(): void
}
type Recognizer = new () => Recognition
const maker = (): Recognizer | undefined => {
  const here = window as unknown as { SpeechRecognition?: Recognizer; webkitSpeechRecognition?: Recognizer }
  return here.SpeechRecognition ?? here.webkitSpeechRecognition
}

/** `hears` gets each sentence. `can`: this browser takes dictation; `listening`: it does so now. */
export function useDictation(hears: (text: string) => void) {
  const listening = ref(false)
  let running: Recognition | null = null
  function begin(): void {
    const Made = maker()
    if (!Made || running) return
    running = new Made()
    running.lang = 'en'
    running.onresult = (heard) => {
      const said = Array.from(heard.results, (one) => one[0]?.transcript ?? '').join(' ')
      if (said.trim()) hears(said.trim())
    }
    running.onend = running.onerror = () => {
      listening.value = false
      running = null
    }
    listening.value = true
    running.start()
  }
  function end(): void {
    running?.stop()
  }
  onScopeDispose(end)
  return { can: Boolean(maker()), listening, begin, end }
}
