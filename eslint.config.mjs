import next from '@next/eslint-plugin-next'
import hooks from 'eslint-plugin-react-hooks'
import typescript from 'typescript-eslint'

export default typescript.config(
  {
    ignores: ['.next/', '.next-test/', '.data/', 'node_modules/', 'next-env.d.ts', 'test-results/'],
  },
  ...typescript.configs.strict,
  {
    plugins: { '@next/next': next, 'react-hooks': hooks },
    rules: {
      ...next.configs.recommended.rules,
      ...next.configs['core-web-vitals'].rules,
      'react-hooks/rules-of-hooks': 'error',
      'react-hooks/exhaustive-deps': 'error',
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports' }],
      '@typescript-eslint/no-non-null-assertion': 'error',
      eqeqeq: 'error',
      'no-console': ['error', { allow: ['error', 'warn'] }],
    },
  },
  { files: ['scripts/**', '*.mjs'], rules: { 'no-console': 'off' } },
  // Fixtures of the browser tests are handed on by a function called `use`, which is no hook.
  { files: ['e2e/**'], rules: { 'react-hooks/rules-of-hooks': 'off', 'no-empty-pattern': 'off' } },
)
