/** The amounts of a step as lines: whose, called what, and how else it can be measured. */
import type { Schemas } from '@/api/client'
import { amount, grams, inUs, isShare } from '@/parts/format'
import type { LooseSheet } from './draft'
import { formOf, isToSalt } from '@/parts/steps'

export interface Row {
  /** Where it stands in the step: '' is the step itself. */
  part: string
  /** The field of its amount, below the step. */
  field: string
  holder: LooseSheet
  name: string
  /** The same in spoons, or in grams where it is given in a measure. */
  spoons?: string
  roles: string[]
  /** What stands for all there is of something; it has no amount. */
  all?: string
}

export function rowsOf(
  step: LooseSheet,
  card: Schemas['Card'] | undefined,
  nameOf: (key: string) => string | undefined,
) {
  return formOf(step.op).rows.flatMap(({ part, roles, all }): Row[] => {
    const holder = part ? step[part] : step
    const field = part ? `${part}.amount` : 'amount'
    if (!holder || isToSalt(holder.amount)) return []
    const named = nameOf(holder.ingredient)
    if (!holder.amount) {
      // All there is of something: what was lifted out, or every piece.
      if (!all && !named) return []
      return [{ part, field, holder, name: named ? `${named}, all of it` : all!, roles, all }]
    }
    if (isShare(holder.amount)) {
      const grammes = card?.weighed[0]?.grams
      return [{ part, field, holder, name: holder.sauce.name, spoons: grammes ? grams(grammes) : undefined, roles }]
    }
    const weighed = card?.weighed.find((w) => w.field === field)
    const byHand = Boolean(holder.amount.measure)
    const other = byHand ? weighed && grams(weighed.grams) : weighed?.spoons && amount(weighed.spoons)
    const us = inUs(holder.amount)
    const spoons = us ? us : byHand || weighed?.spoons?.unit !== holder.amount.unit ? (other ?? undefined) : undefined
    return [{ part, field, holder, name: named ?? holder.sauce?.name ?? holder.ingredient, spoons, roles }]
  })
}
