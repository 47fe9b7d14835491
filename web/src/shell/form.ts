/** A form's answer from the server: problems by field, trouble in words, busy while waiting. */
import { ref } from 'vue'
import { Refused, type Problem } from '@/api/client'

/** The first problem at `field` or below it. */
export function firstAt(problems: Problem[], field: string): Problem | null {
  const here = (p: Problem) => p.field === field || p.field.startsWith(`${field}.`) || p.field.startsWith(`${field}[`)
  return problems.find(here) ?? null
}

/** A field as a cook would point at it: `lines[1].portions` is "line 2, portions". */
export function spokenField(field: string): string {
  return field
    .replace(/(\w+?)s?\[(\d+)\]/g, (_, list: string, at: string) => `${list.replaceAll('_', ' ')} ${Number(at) + 1}`)
    .replaceAll('.', ', ')
    .replaceAll('_', ' ')
}

export function useForm() {
  const problems = ref<Problem[]>([])
  const trouble = ref('')
  const busy = ref(false)

  function clear(): void {
    problems.value = []
    trouble.value = ''
  }
  /** Runs `work`; true when it went through. What was refused stands under its field. */
  async function run(work: () => Promise<unknown>): Promise<boolean> {
    busy.value = true
    try {
      await work()
      clear()
      return true
    } catch (error) {
      clear()
      if (error instanceof Refused) problems.value = error.problems
      else trouble.value = (error as Error).message
      return false
    } finally {
      busy.value = false
    }
  }
  const problemAt = (field: string) => firstAt(problems.value, field)
  return { problems, trouble, busy, clear, run, problemAt }
}
