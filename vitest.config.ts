import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

const alias = { '@': fileURLToPath(new URL('./src', import.meta.url)) }

const project = (name: string, include: string[], timeout: number, more: object = {}) => ({
  resolve: { alias },
  test: { name, include, testTimeout: timeout, hookTimeout: timeout, ...more },
})

// How long a test may take is for one that hangs: beside the browser's tests it has a small share of two cores.
export default defineConfig({
  test: {
    // One for each of the two cores that a small machine has.
    maxWorkers: 2,
    projects: [
      // The core has no state but what it has worked out once, so its files share a process: puzzles are
      // compiled and tables built once for all of them.
      project('core', ['src/core/**/*.test.ts'], 600_000, { isolate: false }),
      project(
        'unit',
        ['src/{ui,features,workers,cli}/**/*.test.ts', 'scripts/**/*.test.ts'],
        600_000,
      ),
      project('database', ['src/{server,app,front}/**/*.test.ts'], 600_000),
    ],
  },
})
