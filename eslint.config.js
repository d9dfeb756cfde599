import js from '@eslint/js';
import jsxA11y from 'eslint-plugin-jsx-a11y';
import reactHooks from 'eslint-plugin-react-hooks';
import globals from 'globals';
import tseslint from 'typescript-eslint';

/** Core is pure: what it needs to know of the world arrives as arguments. */
const PURE_GLOBALS = ['process', 'console', 'fetch', 'setTimeout', 'setInterval', 'performance'];

export default tseslint.config(
  { ignores: ['dist/', 'node_modules/', '.data/', '.cache/', 'test-results/'] },
  js.configs.recommended,
  {
    files: ['**/*.ts', '**/*.tsx'],
    extends: [tseslint.configs.strictTypeChecked, tseslint.configs.stylisticTypeChecked],
    languageOptions: {
      // One program for all rooms: each would compute the types of core again. What a room may see of the world its own compiler run says.
      parserOptions: { project: './tsconfig.lint.json', tsconfigRootDir: import.meta.dirname },
    },
    rules: {
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/switch-exhaustiveness-check': 'error',
      // Loops over typed arrays say `as number`; a bare `!` stays forbidden.
      '@typescript-eslint/non-nullable-type-assertion-style': 'off',
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_' },
      ],
    },
  },
  {
    files: ['core/**/*.ts'],
    rules: {
      'no-restricted-globals': ['error', ...PURE_GLOBALS],
      'no-restricted-syntax': [
        'error',
        {
          selector: "NewExpression[callee.name='Date'][arguments.length=0]",
          message: 'Core reads no clock: take the time as an argument.',
        },
        {
          selector: "CallExpression[callee.object.name='Date'][callee.property.name='now']",
          message: 'Core reads no clock: take the time as an argument.',
        },
        {
          selector: "CallExpression[callee.object.name='Math'][callee.property.name='random']",
          message: 'Core draws no chance: take a seed as an argument.',
        },
      ],
    },
  },
  {
    files: ['server/**/*.ts'],
    // The migrations and the guards of the database speak of its structure, not of records.
    ignores: [
      '**/queries.ts',
      '**/*.test.ts',
      'server/database/**',
      'server/audit/guards.ts',
      'server/test-support/**',
    ],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: "CallExpression[callee.object.name=/^(db|tx)$/][callee.property.name='raw']",
          message: 'SQL stands in a file called queries.',
        },
        {
          selector: 'CallExpression[callee.name=/^(db|tx)$/]',
          message: 'Tables are asked in a file called queries.',
        },
        {
          selector: 'CallExpression[callee.property.name=/^#?db$/]',
          message: 'Tables are asked in a file called queries.',
        },
      ],
    },
  },
  {
    files: ['web/**/*.tsx', 'web/**/*.ts'],
    extends: [jsxA11y.flatConfigs.strict, reactHooks.configs.flat.recommended],
    languageOptions: { globals: globals.browser },
  },
  {
    files: ['web/public/service-worker.js'],
    languageOptions: { globals: globals.serviceworker },
  },
  {
    files: ['scripts/**/*.mjs'],
    languageOptions: { globals: globals.node },
  },
);
