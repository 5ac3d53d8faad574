import { describe, expect, it } from 'vitest'
import { actionFor, KEYS } from '@/features/visit/keyboard'

const key = (name: string, target: EventTarget | null = null, more = {}) =>
  actionFor({ key: name, ctrlKey: false, metaKey: false, altKey: false, target, ...more })

describe('keys', () => {
  it.each(KEYS)('%s means %s', (name, _text, action) => expect(key(name)).toEqual(action))
  it('knows nothing of other keys', () => expect(key('x')).toBeNull())
  it('leaves the browser its own', () => expect(key('f', null, { ctrlKey: true })).toBeNull())
  it('is silent while somebody types', () => {
    const field = document.createElement('input')
    expect(key('f', field)).toBeNull()
  })
  it('gives every key one meaning', () =>
    expect(new Set(KEYS.map(([name]) => name)).size).toBe(KEYS.length))
})
