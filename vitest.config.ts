import { defineConfig } from 'vitest/config'
import { fileURLToPath } from 'node:url'

const root = fileURLToPath(new URL('.', import.meta.url))

export default defineConfig({
  resolve: { alias: { '~~': root, '~': `${root}app`, '#core': `${root}core`, '#demo': `${root}demo` } },
  test: {
    include: [
      'core/**/*.test.ts',
      'shared/**/*.test.ts',
      'server/**/*.test.ts',
      'demo/**/*.test.ts',
      'app/**/*.test.ts',
      'scripts/**/*.test.ts',
      'standins/**/*.test.ts',
    ],
    environment: 'node',
    // Modules hold no state of a test: each is read once for all files of a worker.
    isolate: false,
    // Both cores: by itself it leaves one to the machine.
    maxWorkers: '100%',
    testTimeout: 60_000,
    hookTimeout: 60_000,
  },
})
