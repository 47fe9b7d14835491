/** Ingredients to choose from, found by what shops and recipes call them too. */
import type { SelectOption } from 'naive-ui'
import type { Schemas } from '@/api/client'

type Named = Pick<Schemas['IngredientOut'], 'key' | 'name' | 'aliases'>

export function ingredientOption(row: Named): SelectOption {
  return { value: row.key, label: row.name, aliases: row.aliases.join(' ') }
}

/** Whether what is typed is in an option's label, or in what else it is called. */
export function found(typed: string, option: SelectOption): boolean {
  const words = typed.toLowerCase().split(/\s+/)
  const names = `${String(option.label)} ${String(option.aliases ?? '')}`.toLowerCase()
  return words.every((word) => names.includes(word))
}
