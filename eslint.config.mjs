import { defineConfig, globalIgnores } from 'eslint/config';
import nextVitals from 'eslint-config-next/core-web-vitals';
import nextTs from 'eslint-config-next/typescript';
import prettier from 'eslint-config-prettier';

const forbid = (files, group, message) => ({
  files,
  rules: { 'no-restricted-imports': ['error', { patterns: [{ group, message }] }] },
});

export default defineConfig([
  ...nextVitals,
  ...nextTs,
  {
    rules: {
      eqeqeq: 'error',
      'no-console': 'error',
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
    },
  },
  forbid(
    ['src/core/**'],
    [
      'react',
      'react-dom',
      'next',
      'next/*',
      '@mui/*',
      'knex',
      'better-sqlite3',
      'node:*',
      '@/ui/*',
      '@/server/*',
      '@/app/*',
    ],
    'The core is pure: no interface, database, clock or network.',
  ),
  { files: ['scripts/**', 'bench/**', 'e2e/**', 'src/**/cli/**'], rules: { 'no-console': 'off' } },
  prettier,
  globalIgnores([
    '**/.next/**',
    '.workers/**',
    'src/server/migrations/judge-*.mjs',
    'next-env.d.ts',
    'reports/**',
    'test-results/**',
    'playwright-report/**',
    'data/**',
  ]),
]);
