import { defineProject } from 'vitest/config';

/** The tests of what is pure and of the pages' logic, on their own for the mutations. */
export default defineProject({
  test: {
    name: 'unit',
    include: ['{core,calc,contract,web}/**/*.test.{ts,tsx}'],
    // Nothing of theirs changes a module: what they share is loaded once, which is most of the time that they take.
    isolate: false,
    // Of computations that take a second on a machine at rest.
    testTimeout: 30_000,
  },
});
