import { describe, expect, it } from 'vitest'
import { firstAt, spokenField } from './form'

describe('a field', () => {
  it('is pointed at as a cook would', () => {
    expect(spokenField('lines[1].portions')).toBe('line 2, portions')
    expect(spokenField('on_hand[0].amount.unit')).toBe('on hand 1, amount, unit')
    expect(spokenField('name')).toBe('name')
  })
  it('takes in what is below it, and nothing that only begins like it', () => {
    const at = (field: string) => ({ field, code: 'x', message: field, remedy: '' })
    const problems = [at('lines[10].dish'), at('lines[1].without[0]')]
    expect(firstAt(problems, 'lines[1]')?.message).toBe('lines[1].without[0]')
    expect(firstAt(problems, 'lines[2]')).toBeNull()
  })
})
