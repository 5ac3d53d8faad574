const WIRES = 6 // as many as a browser keeps open to one server
const GIVE_UP_MS = 3000

let asking: Promise<boolean> | null = null

/**
 * Asks whether the server is there, on every wire at once. Wires that died without a word (another mast, a lift) are given
 * up together by that: a browser would try one after the other, and each takes its time to be found dead.
 */
export function askOnEveryWire(): Promise<boolean> {
  asking ??= anyAnswers().finally(() => (asking = null))
  return asking
}

async function anyAnswers(): Promise<boolean> {
  const calls = Array.from({ length: WIRES }, () =>
    fetch('/api/health', { cache: 'no-store', signal: AbortSignal.timeout(GIVE_UP_MS) }),
  )
  try {
    return (await Promise.any(calls)).ok
  } catch {
    return false
  }
}
