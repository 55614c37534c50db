import angular from 'angular-eslint';
import tseslint from 'typescript-eslint';

export default tseslint.config(
  {
    ignores: ['**/dist/', '**/node_modules/', '**/.angular/', 'test-results/', 'playwright-report/', 'demo/'],
  },
  {
    files: ['**/*.ts'],
    extends: [...tseslint.configs.recommended, ...tseslint.configs.stylistic],
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/no-empty-function': 'off',
      '@typescript-eslint/no-non-null-assertion': 'off',
      eqeqeq: ['error', 'always', { null: 'ignore' }],
      'no-console': 'error',
    },
  },
  {
    files: ['apps/server/src/**/*.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: 'CallExpression > Literal[value=/^(not )?in$/]',
          message:
            'A list is bound value by value by this, and ends at 32,766: use isAmong of storage/lists.',
        },
        {
          selector: 'TemplateElement[value.raw=/json_each\\(($|\\?)/]',
          message: 'Lists are handed over by listOf of storage/lists.',
        },
      ],
    },
  },
  {
    // The one place that hands over lists, and what reads JSON of one column.
    files: [
      'apps/server/src/storage/lists.ts',
      'apps/server/src/storage/oneFile/migrations.ts',
      '**/*.spec.ts',
    ],
    rules: { 'no-restricted-syntax': 'off' },
  },
  {
    files: ['bench/**/*.ts', 'e2e/safety/main.ts', 'apps/server/src/main.ts', 'apps/web/src/main.ts'],
    rules: { 'no-console': 'off' },
  },
  {
    files: ['apps/web/src/**/*.ts'],
    ignores: ['**/*.spec.ts'],
    extends: [...angular.configs.tsRecommended],
    processor: angular.processInlineTemplates,
    rules: {
      '@angular-eslint/component-selector': ['error', { type: 'element', prefix: 'pt', style: 'kebab-case' }],
      '@angular-eslint/prefer-on-push-component-change-detection': 'error',
    },
  },
  {
    files: ['apps/web/src/**/*.html'],
    extends: [...angular.configs.templateRecommended, ...angular.configs.templateAccessibility],
    rules: {
      '@angular-eslint/template/eqeqeq': 'off',
      '@angular-eslint/template/interactive-supports-focus': 'off',
    },
  },
);
