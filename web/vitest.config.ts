import { mergeConfig } from 'vite'
import { defineConfig } from 'vitest/config'
import base from './vite.config'

/** What stands in for the server and the disk here would be kept by modules that other files share. */
const ALONE = ['src/outbox/**/*.test.ts', 'src/features/visit/useWriting.test.ts']
const ALL = ['src/**/*.test.ts']

export default mergeConfig(
  base,
  defineConfig({
    test: {
      environment: 'jsdom',
      projects: [
        { extends: true, test: { name: 'shared', include: ALL, exclude: ALONE, isolate: false } },
        { extends: true, test: { name: 'alone', include: ALONE, isolate: true } },
      ],
    },
  }),
)
