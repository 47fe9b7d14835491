/** What a timer shows, from when the server started it. */

/** Seconds left; negative once it has run out. Null when none runs. */
export function secondsLeft(startedAt: string | null | undefined, seconds: number, serverNowMs: number): number | null {
  if (!startedAt) return null
  return seconds - (serverNowMs - Date.parse(startedAt)) / 1000
}

/** "4:05", and "+0:12" once it is over. */
export function clock(left: number): string {
  const over = left < 0
  const whole = Math.abs(over ? Math.floor(left) : Math.ceil(left))
  const text = `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`
  return over ? `+${text}` : text
}
