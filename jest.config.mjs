import nextJest from 'next/jest.js';

const createConfig = nextJest({ dir: './' });

export default createConfig({
  testEnvironment: 'node',
  globalSetup: '<rootDir>/scripts/unit-setup.mjs',
  // A guard against a test that hangs, no bar: in `npm test` the journeys come first, and a test waits for its turn.
  testTimeout: 1_800_000,
  // Every core: without being told, one of them is left idle, and that is half of a machine with two.
  maxWorkers: '100%',
  sandboxInjectedGlobals: [
    'Math',
    'Number',
    'Object',
    'Array',
    'Float64Array',
    'Map',
    'Set',
    'JSON',
    'String',
    'Boolean',
  ],
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/src/$1' },
  testMatch: ['<rootDir>/src/**/*.test.ts', '<rootDir>/src/**/*.test.tsx'],
  modulePathIgnorePatterns: ['<rootDir>/.next/'],
});
