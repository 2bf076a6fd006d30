import { createTypeScriptImportResolver } from 'eslint-import-resolver-typescript';
import importX from 'eslint-plugin-import-x';
import reactHooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

/** Imports point one way: web → contracts → core ← contracts ← server. */
const forbid = (message, ...regexes) => ['error', { patterns: regexes.map((regex) => ({ regex, message })) }];
const TESTS = ['**/*.test.ts', '**/*.fixture.ts', 'e2e/**'];

export default tseslint.config(
  {
    ignores: ['dist/', 'dist-server/', 'node_modules/', '.cache/', '.data/', 'test-results/', 'playwright-report/'],
  },
  ...tseslint.configs.recommended,
  {
    files: ['**/*.ts', '**/*.tsx'],
    plugins: { 'import-x': importX },
    settings: {
      'import-x/extensions': ['.ts', '.tsx'],
      'import-x/parsers': { '@typescript-eslint/parser': ['.ts', '.tsx'] },
      'import-x/resolver-next': [createTypeScriptImportResolver()],
    },
    languageOptions: { parserOptions: { projectService: true } },
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': [
        'error',
        { fixStyle: 'separate-type-imports', disallowTypeAnnotations: false, prefer: 'type-imports' },
      ],
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/no-misused-promises': 'error',
      '@typescript-eslint/no-unnecessary-condition': 'error',
      '@typescript-eslint/no-unnecessary-type-assertion': 'error',
      '@typescript-eslint/switch-exhaustiveness-check': 'error',
      eqeqeq: ['error', 'always', { null: 'ignore' }],
      'import-x/no-cycle': ['error', { ignoreExternal: true }],
      'no-console': 'error',
      'max-lines': ['error', 400],
      'max-lines-per-function': ['error', 80],
    },
  },
  {
    files: ['core/**/*.ts'],
    ignores: TESTS,
    rules: {
      'no-restricted-imports': forbid(
        'The core imports nothing but itself: no interface, server, library or Node.',
        '^(?!\\.{1,2}/)',
        '\\.\\./(\\.\\./)*(web|server|contracts)/',
      ),
    },
  },
  {
    files: ['contracts/**/*.ts'],
    ignores: TESTS,
    rules: { 'no-restricted-imports': forbid('Contracts know the core and Joi only.', '^(?!joi$|#core|\\.{1,2}/)') },
  },
  {
    files: ['server/**/*.ts'],
    rules: {
      'no-restricted-imports': forbid('The server does not know the interface.', '/web/', '^react', '^#web'),
    },
  },
  {
    files: ['web/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': reactHooks },
    rules: {
      ...reactHooks.configs.recommended.rules,
      'no-restricted-imports': forbid(
        'The interface reaches the server through its API only.',
        '#server',
        '/server/',
        '^node:',
        '^drizzle',
        '^express',
      ),
    },
  },
  { files: ['scripts/**', 'bench/**', 'e2e/**'], rules: { 'no-console': 'off' } },
  // A suite is a list of cases, not a function to be read in one breath.
  { files: TESTS, rules: { 'max-lines-per-function': 'off' } },
);
