import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

const alias = { '@': fileURLToPath(new URL('./src', import.meta.url)) }

/**
 * Modules are loaded as they are outside of tests: through the test runner's own loader every call of another module's
 * function is a look into a table, and the core takes more than twice as long.
 */
const asOutside = {
  execArgv: ['--import', 'tsx'],
  experimental: { viteModuleRunner: false, nodeLoader: false },
}

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
      project('core', ['src/core/**/*.test.ts'], 600_000, { isolate: false, ...asOutside }),
      project(
        'unit',
        ['src/{ui,features,workers,cli}/**/*.test.ts', 'scripts/**/*.test.ts'],
        600_000,
      ),
      project('database', ['src/{server,app,front}/**/*.test.ts'], 600_000),
    ],
  },
})
