import regexp from 'eslint-plugin-regexp';
import next from 'eslint-config-next/core-web-vitals';
import typescript from 'eslint-config-next/typescript';

const config = [
  ...next,
  ...typescript,
  {
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      'no-restricted-syntax': [
        'error',
        {
          selector: "CallExpression[callee.property.name='query'] > TemplateLiteral",
          message: 'Prepared statements only.',
        },
      ],
      // Navigation that should load the frame anew (sign-in, settings links in the header) uses plain anchors on purpose.
      '@next/next/no-html-link-for-pages': 'off',
      '@next/next/no-location-assign-relative-destination': 'off',
      // The virtualiser hands out functions on purpose; nothing of ours memoises them.
      'react-hooks/incompatible-library': 'off',
    },
  },
  // A pattern that a text from outside reaches takes time that grows with its length, and no faster.
  {
    files: ['src/**/*.{ts,tsx}', 'bin/**/*.{ts,mjs}'],
    ignores: ['**/*.test.ts'],
    plugins: { regexp },
    rules: {
      'regexp/no-super-linear-backtracking': ['error', { report: 'potential' }],
      'regexp/no-super-linear-move': ['error', { report: 'potential', ignorePartial: false, ignoreSticky: false }],
    },
  },
  { files: ['bin/**/*.mjs', 'tests/**/*.ts'], rules: { 'no-restricted-syntax': 'off' } },
  { files: ['tests/support/soaking.cjs'], rules: { '@typescript-eslint/no-require-imports': 'off' } },
  { ignores: ['.next/**', '.build/**', '.data*/**', 'next-env.d.ts', 'docs/**'] },
];

export default config;
