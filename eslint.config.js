import js from '@eslint/js';
import hooks from 'eslint-plugin-react-hooks';
import globals from 'globals';
import ts from 'typescript-eslint';

export default ts.config(
  { ignores: ['dist/', 'node_modules/', 'test-results/', '**/*.as.ts'] },
  js.configs.recommended,
  ...ts.configs.recommended,
  {
    rules: {
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports' }],
      eqeqeq: ['error', 'always'],
      'no-console': ['error', { allow: ['error'] }],
      '@typescript-eslint/no-unused-vars': ['error', { ignoreRestSiblings: true, argsIgnorePattern: '^_$' }],
    },
  },
  { files: ['app/**/*.{ts,tsx}'], ...hooks.configs.flat['recommended-latest'] },
  { files: ['scripts/**', 'bin/**', '*.cjs', '*.js'], languageOptions: { globals: globals.node } },
  // These hand functions to the page.
  {
    files: ['bench/**', 'scripts/screenshots.mjs'],
    languageOptions: { globals: { ...globals.node, ...globals.browser } },
  },
  { files: ['scripts/**', 'bin/**', 'cli/**', 'bench/**'], rules: { 'no-console': 'off' } },
);
