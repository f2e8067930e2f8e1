import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

const alias = { '@': fileURLToPath(new URL('./src', import.meta.url)) }
const project = (name: string, include: string[], rest: object = {}) => ({
  resolve: { alias },
  test: { name, include, environment: 'node', ...rest },
})

export default defineConfig({
  test: {
    projects: [
      project('unit', ['src/**/*.test.{ts,tsx}', 'scripts/**/*.test.ts']),
      project('reference', ['tests/reference/**/*.test.ts']),
      project('database', ['tests/database/**/*.test.ts'], {
        fileParallelism: false,
        testTimeout: 30_000,
        hookTimeout: 60_000,
      }),
      project('start', ['tests/start/**/*.test.ts'], {
        fileParallelism: false,
        testTimeout: 120_000,
        hookTimeout: 60_000,
      }),
      project('e2e', ['tests/e2e/**/*.test.ts'], {
        fileParallelism: false,
        testTimeout: 120_000,
        hookTimeout: 120_000,
      }),
    ],
  },
})
