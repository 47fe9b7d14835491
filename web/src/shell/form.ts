/** A form's answer from the server: problems by field, trouble in words, busy while waiting. */
import { ref } from 'vue'
import { Refused, type Problem } from '@/api/client'

export function useForm() {
  const problems = ref<Problem[]>([])
  const trouble = ref('')
  const busy = ref(false)

  /** Runs `work`; true when it went through. What was refused stands under its field. */
  async function run(work: () => Promise<unknown>): Promise<boolean> {
    problems.value = []
    trouble.value = ''
    busy.value = true
    try {
      await work()
      return true
    } catch (error) {
      if (error instanceof Refused) problems.value = error.problems
      else trouble.value = (error as Error).message
      return false
    } finally {
      busy.value = false
    }
  }
  /** What is wrong with `field`, in a sentence; empty when nothing is. */
  function wrong(field: string): string {
    const problem = problems.value.find((p) => p.field === field)
    return problem ? `${problem.message}. ${problem.remedy}.` : ''
  }
  return { trouble, busy, run, wrong }
}
