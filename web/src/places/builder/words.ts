/** What the pot says of itself, by the core's keys. */
export const asideWords: Record<string, string> = {
  top: 'for the top',
  correcting: 'to correct with',
  garnish: 'as garnish',
  pass: 'for the pass',
  lifted: 'to go back in',
}
export const emulsionWords: Record<string, string> = {
  stable: 'holds',
  caution: 'getting rich',
  oily: 'likely to turn oily',
  split: 'split',
}
