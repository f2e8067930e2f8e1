import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'
import { BaseSequencer, type TestSpecification } from 'vitest/node'
import { coreVersion } from './scripts/lib/coreVersion'

process.env.UPSTAND_CORE_VERSION ??= coreVersion()

const alias = { '@': fileURLToPath(new URL('./src', import.meta.url)) }
const project = (name: string, include: string[], rest: object = {}) => ({
  resolve: { alias },
  test: { name, include, environment: 'node', ...rest },
})

/** Tests that share one running application meet it in the same order everywhere. */
class ByName extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    return [...files].sort((a, b) => a.moduleId.localeCompare(b.moduleId))
  }
}

export default defineConfig({
  test: {
    sequence: { sequencer: ByName },
    projects: [
      // A screen drawn into a stand-in for a document, or a command, takes seconds where others use the same processors.
      project('unit', ['src/**/*.test.{ts,tsx}', 'scripts/**/*.test.ts', 'tests/laws/**/*.test.ts'], {
        testTimeout: 60_000,
      }),
      project('reference', ['tests/reference/**/*.test.ts'], { testTimeout: 60_000 }),
      project('database', ['tests/database/**/*.test.ts'], {
        fileParallelism: false,
        testTimeout: 30_000,
        hookTimeout: 60_000,
      }),
      // Each file has data folders and ports of its own.
      project('start', ['tests/start/**/*.test.ts'], {
        testTimeout: 300_000,
        hookTimeout: 240_000,
      }),
      project('e2e', ['tests/e2e/**/*.test.ts'], {
        fileParallelism: false,
        testTimeout: 120_000,
        hookTimeout: 120_000,
      }),
    ],
  },
})
