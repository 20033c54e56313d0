import js from '@eslint/js';
import reactHooks from 'eslint-plugin-react-hooks';
import globals from 'globals';
import tseslint from 'typescript-eslint';

export default tseslint.config(
  { ignores: ['**/node_modules/', '**/dist/', '**/.expo/', '**/.data/', 'test-results/', 'server/drizzle/'] },
  js.configs.recommended,
  {
    files: ['**/*.ts', '**/*.tsx'],
    extends: [...tseslint.configs.recommendedTypeChecked],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/no-confusing-void-expression': 'off',
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: true, allowNever: true }],
      eqeqeq: 'error',
      'no-console': 'error',
    },
  },
  {
    files: ['app/**/*.ts', 'app/**/*.tsx'],
    plugins: { 'react-hooks': reactHooks },
    rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
  },
  {
    // Texts come from the catalogue, or every reader would need to know English.
    files: ['app/**/*.tsx'],
    ignores: ['app/kit/**', 'app/test/**'],
    rules: {
      'no-restricted-syntax': [
        'error',
        { selector: 'JSXText[value=/[A-Za-z]{2,}/]', message: 'Texts come from app/text.' },
        {
          selector: 'JSXAttribute[name.name=/^(title|label|placeholder|text|hint)$/] > Literal[value=/[A-Za-z]{2,}/]',
          message: 'Texts come from app/text.',
        },
      ],
    },
  },
  { files: ['**/*.{js,mjs}'], languageOptions: { globals: globals.node } },
  {
    // The commands install the packages themselves: until then there is only what Node.js brings.
    files: ['bin/**/*.mjs'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            { regex: '^(?!node:|\\./)', message: 'Import packages inside a function, after the install step.' },
          ],
        },
      ],
    },
  },
  { files: ['app/*.js'], languageOptions: { sourceType: 'commonjs' } },
  {
    files: ['**/*.test.ts', '**/*.test.tsx', '**/test/**', 'e2e/**', '**/arbitraries.ts'],
    rules: {
      '@typescript-eslint/no-unsafe-assignment': 'off',
      '@typescript-eslint/no-unsafe-member-access': 'off',
      '@typescript-eslint/require-await': 'off',
    },
  },
  {
    files: [
      'server/src/start.ts',
      'server/src/main.ts',
      'server/src/restore.ts',
      'server/src/carry.ts',
      'demo/src/start.ts',
      'bench/**',
      'bin/**',
    ],
    rules: { 'no-console': 'off' },
  },
);
