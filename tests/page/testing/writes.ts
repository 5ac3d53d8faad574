import { vi } from 'vitest'

/** The calls that write, for tests: `vi.mock('@/api/calls', async () => (await import('@tests/testing/writes')).writes)`. */
export const writes = {
  closeVisit: vi.fn(),
  correct: vi.fn(),
  markPhoto: vi.fn(),
  sendPhoto: vi.fn(),
  writeCaptureMeans: vi.fn(),
  writeDips: vi.fn(),
  writeLine: vi.fn(),
  writeMeans: vi.fn(),
  writeStep: vi.fn(),
}
