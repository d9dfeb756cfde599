import { defineProject } from 'vitest/config';

/** The tests of what is pure and of the pages' logic, on their own for the mutations. */
export default defineProject({
  test: {
    name: 'unit',
    include: ['{core,calc,contract,web}/**/*.test.{ts,tsx}'],
    // Of computations that take a second on a machine at rest.
    testTimeout: 30_000,
  },
});
