/** The sauce being worked on: a document the core works out, solves, switches from school to school. */
import { ref, toRaw, watch } from 'vue'
import { api, ask, type Schemas, type Worked } from '@/api/client'
import { useDocument, type Loose, type Stored } from '@/shell/document'

export type LooseSheet = Loose
export interface SolveWith {
  serves?: Record<string, unknown>
  have?: { ingredient: string; amount: unknown }
  written_in?: { pan: unknown; burner: unknown }
}

const storedOf = (found: Schemas['SauceOut']): Stored => ({ id: found.id, base: found.version, document: found.sheet })
const check = (sheet: Loose, resalt = false) => ask(api.POST('/api/work/check', { body: { sheet, resalt } }))

export function useDraft() {
  const document = useDocument<Worked, Schemas['ConflictOut']>({
    name: 'draft',
    work: (sheet) => check(sheet),
    documentOf: (found) => found.sheet,
    load: async (id) => storedOf(await ask(api.GET('/api/sauces/{sauce_id}', { params: { path: { sauce_id: id } } }))),
    write: async (sheet, id, base) =>
      storedOf(
        id === null
          ? await ask(api.POST('/api/sauces', { body: { sheet } }))
          : await ask(
              api.PUT('/api/sauces/{sauce_id}', {
                params: { path: { sauce_id: id } },
                body: { sheet, base_version: base },
              }),
            ),
      ),
    theirs: (body) => ({ base: body.version, document: body.sheet }),
  })
  const { typed, found, nearest, edit, send } = document
  /** What the last switch of school moved. */
  const changes = ref<string[]>([])
  watch(
    found,
    (made) => {
      if (made?.changes?.length) changes.value = made.changes
    },
    { flush: 'sync' },
  )

  /** Take what comes nearest to the target that was refused, its target with it. */
  const takeNearest = () => send(structuredClone(toRaw(nearest.value)) as Loose)
  /** Change the salt target; the core brings the step that salts along. */
  const salt = (target: string) =>
    edit(
      (sheet) => (sheet.target.salt_pct = target.trim() || null),
      'salt',
      (sheet) => check(sheet, true),
    )
  /** Make it another school's way; `changes` then says what that moved. */
  const follow = (school: string, choice: string) =>
    edit(
      () => undefined,
      '',
      (sheet) => ask(api.POST('/api/work/switch', { body: { school, choice, sheet } })),
    )
  /** Change the target and have the core re-proportion the sauce to it. */
  const aim = (change: (sheet: Loose) => void = () => undefined, solve: SolveWith = {}, tag = '') =>
    edit(change, tag, (sheet) => ask(api.POST('/api/work/solve', { body: { sheet, exact: false, ...solve } })))

  /** Put it into another pan, or onto another ring: stops by minutes stay where they were, in the minutes that takes. */
  function move(to: { pan?: unknown; burner?: unknown }): Promise<void> {
    const { pan = null, burner = null } = toRaw(typed.value)
    return aim((sheet) => Object.assign(sheet, to), { written_in: { pan, burner } })
  }

  return { ...document, sheet: typed, worked: found, changes, takeNearest, salt, follow, aim, move }
}
export type Draft = ReturnType<typeof useDraft>
