import { fileURLToPath } from 'node:url'
import { mergeConfig } from 'vite'
import { defineConfig } from 'vitest/config'
import base from './vite.config'

const TESTS = '../tests/page'
/** What stands in for the server and the disk here would be kept by modules that other files share. */
const ALONE = ['outbox/**/*', 'features/visit/useWriting', 'features/string/SearchHistory'].map(
  (name) => `${TESTS}/${name}.test.ts`,
)
const ALL = [`${TESTS}/**/*.test.ts`]
/** The tests stand outside this folder; what they import is looked for in it all the same. */
const OURS = ['vitest', '@vue/test-utils', 'vue', 'vue-router', 'pinia', '@tanstack/vue-query']

export default mergeConfig(
  base,
  defineConfig({
    resolve: {
      dedupe: OURS,
      alias: { '@tests': fileURLToPath(new URL(TESTS, import.meta.url)) },
    },
    server: { fs: { allow: ['..'] } },
    test: {
      environment: 'jsdom',
      projects: [
        { extends: true, test: { name: 'shared', include: ALL, exclude: ALONE, isolate: false } },
        { extends: true, test: { name: 'alone', include: ALONE, isolate: true } },
      ],
    },
  }),
)
