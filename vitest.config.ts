import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

const alias = { '@': fileURLToPath(new URL('./src', import.meta.url)) }

export default defineConfig({
  test: {
    // One for each of the two cores that a small machine has.
    maxWorkers: 2,
    projects: [
      {
        resolve: { alias },
        test: {
          name: 'unit',
          include: ['src/{core,ui,features,workers,cli}/**/*.test.ts', 'scripts/**/*.test.ts'],
          testTimeout: 240_000,
          hookTimeout: 240_000,
        },
      },
      {
        resolve: { alias },
        test: {
          name: 'database',
          include: ['src/server/**/*.test.ts'],
          testTimeout: 180_000,
          hookTimeout: 180_000,
        },
      },
    ],
  },
})
