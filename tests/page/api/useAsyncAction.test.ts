import { describe, expect, it } from 'vitest'
import { ApiError } from '@/api/client'
import { useAsyncAction } from '@/api/useAsyncAction'

describe('useAsyncAction', () => {
  it('says what was refused in the server’s own words, and forgets it after the next success', async () => {
    const { trouble, busy, run } = useAsyncAction()
    const refused = await run(() =>
      Promise.reject(new ApiError(422, 'samples_channel', 'Line 2: no channel is called “broth”.')),
    )
    expect(refused).toBe(false)
    expect(trouble.value).toBe('Line 2: no channel is called “broth”.')
    expect(await run(() => Promise.resolve())).toBe(true)
    expect(trouble.value).toBe('')
    expect(busy.value).toBe(false)
  })
  it('is busy only while it works', async () => {
    const { busy, run } = useAsyncAction()
    let finish = (): void => undefined
    const working = run(
      () =>
        new Promise<void>((resolve) => {
          finish = resolve
        }),
    )
    expect(busy.value).toBe(true)
    finish()
    await working
    expect(busy.value).toBe(false)
  })
  it('shows an error that no server sent, too', async () => {
    const { trouble, run } = useAsyncAction()
    await run(() => Promise.reject(new Error('line is down')))
    expect(trouble.value).toContain('line is down')
  })
})
