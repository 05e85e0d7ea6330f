import js from '@eslint/js';
import tseslint from 'typescript-eslint';
import hooks from 'eslint-plugin-react-hooks';

const IN_TRANSACTION = [
  // the work of a transaction, and of a route that is one
  "CallExpression[callee.property.name='transaction'] > .arguments:first-child",
  "CallExpression[callee.property.name='writes'] > .arguments:nth-child(2)",
  "CallExpression[callee.property.name='preparedWrites'] > .arguments:nth-child(3)",
];
const poolInTransaction = [
  ...IN_TRANSACTION.flatMap((work) => [
    `${work} Identifier[name='database']`,
    `${work} MemberExpression[property.name='database']`,
  ]),
  ':function:has(> Identifier.params[typeAnnotation.typeAnnotation.typeName.name="Transaction"]):has(> Identifier.params[typeAnnotation.typeAnnotation.typeName.name="Database"])',
].map((selector) => ({
  selector,
  message:
    'Inside a transaction only its own connection may be used: the pool is read before it or after it.',
}));

export default tseslint.config(
  { ignores: ['**/dist/', 'var/', '**/node_modules/'] },
  js.configs.recommended,
  ...tseslint.configs.strict,
  {
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/no-invalid-void-type': 'off',
      eqeqeq: ['error', 'always', { null: 'ignore' }],
    },
  },
  {
    files: ['**/*.{ts,tsx}'],
    languageOptions: { parserOptions: { projectService: true } },
    rules: {
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: { attributes: false } }],
      '@typescript-eslint/switch-exhaustiveness-check': 'error',
    },
  },
  {
    // inside a transaction only its own connection: the pool is not named in the work of one, and no function is given both
    files: ['server/src/**/*.ts'],
    ignores: ['**/*.test.ts', 'server/src/db/**'],
    rules: { 'no-restricted-syntax': ['error', ...poolInTransaction] },
  },
  {
    files: ['web/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': hooks },
    rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
  },
  {
    // tests read the answers of routes as any other program would: without our types
    files: ['server/src/**/*.test.ts', 'server/src/testing/*.ts'],
    rules: { '@typescript-eslint/no-explicit-any': 'off' },
  },
  {
    files: ['**/*.mjs'],
    languageOptions: {
      globals: {
        process: 'readonly',
        console: 'readonly',
        setTimeout: 'readonly',
        URL: 'readonly',
        fetch: 'readonly',
      },
    },
  },
);
