import { ApiError } from '@/api/client'
import type { Pending, Refused } from './store'

export type Fate =
  | { kind: 'sent' }
  /** Nobody answered, or not for the server's rules: it stays, and is sent again. */
  | { kind: 'kept'; because: 'silence' | 'signed_out' | 'trouble' }
  | { kind: 'refused'; refused: Refused }

/** Answers that are no rule's own: they say nothing of what was entered. */
const NO_RULE = new Set([401, 408, 425, 429])

/** What becomes of an item after one try: gone through, kept for later, or refused by the server's rules. */
export async function trySend(
  item: Pending,
  send: (item: Pending) => Promise<unknown>,
): Promise<Fate> {
  try {
    await send(item)
    return { kind: 'sent' }
  } catch (error) {
    if (!(error instanceof ApiError) || error.unreachable)
      return { kind: 'kept', because: 'silence' }
    if (error.status === 401 || (error.status === 403 && error.code === 'forbidden'))
      return { kind: 'kept', because: 'signed_out' }
    if (NO_RULE.has(error.status) || error.status >= 500)
      return { kind: 'kept', because: 'trouble' }
    const { message: why, code, details } = error
    return { kind: 'refused', refused: { why, code, details } }
  }
}
