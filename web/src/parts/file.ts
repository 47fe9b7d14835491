/** A text from the server saved as a file of the cook's. */

/** "Cheese sauce, mild" as "cheese-sauce-mild.md". */
export function fileName(name: string, ending: string): string {
  const plain = name
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-|-$/g, '')
    .toLowerCase()
  return `${plain || 'sauce'}.${ending}`
}

export function saveFile(name: string, made: { text: string; ending: string; kind: string }): void {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(new Blob([made.text], { type: made.kind }))
  link.download = fileName(name, made.ending)
  link.click()
  URL.revokeObjectURL(link.href)
}
