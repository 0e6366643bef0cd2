import nextJest from 'next/jest.js';

const createConfig = nextJest({ dir: './' });

export default createConfig({
  testEnvironment: 'node',
  globalSetup: '<rootDir>/scripts/unit-setup.mjs',
  // A demo world is made before some tests: on a busy machine that takes longer than the five seconds that are usual.
  testTimeout: 60_000,
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
