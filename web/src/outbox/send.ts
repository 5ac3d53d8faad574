import { ApiError } from '@/api/client'
import type { PendingLine } from './store'

export type Fate = { kind: 'sent' } | { kind: 'kept' } | { kind: 'refused'; why: string }

/** What becomes of a line after one try: gone through, kept for later, or refused by the server's rules. */
export async function trySend(
  line: PendingLine,
  send: (line: PendingLine) => Promise<unknown>,
): Promise<Fate> {
  try {
    await send(line)
    return { kind: 'sent' }
  } catch (error) {
    if (
      error instanceof ApiError &&
      !error.unreachable &&
      error.status !== 401 &&
      error.status < 500
    )
      return { kind: 'refused', why: error.message }
    return { kind: 'kept' }
  }
}
