import js from '@eslint/js';
import angular from 'angular-eslint';
import tseslint from 'typescript-eslint';

export default tseslint.config(
  {
    ignores: ['**/dist/', '**/node_modules/', '**/.angular/', 'test-results/', 'playwright-report/', 'demo/'],
  },
  {
    files: ['**/*.ts'],
    extends: [
      js.configs.recommended,
      ...tseslint.configs.recommendedTypeChecked,
      ...tseslint.configs.stylistic,
    ],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      // Functions of records are handed on as they are: none of ours uses `this` but those of classes.
      '@typescript-eslint/unbound-method': 'off',
      // What comes from outside is unknown until it is read; what is said of it may be anything.
      '@typescript-eslint/no-base-to-string': 'off',
      // Texts of messages hold every character there is, and the rules for them name these.
      'no-control-regex': 'off',
      'no-misleading-character-class': 'off',
      // A generator that ends before its first round is one all the same.
      'require-yield': 'off',
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
    // Every engine gives the same bits for what IEEE 754 fixes; sines, powers and logarithms are each engine's own.
    files: ['packages/core/src/layout/**/*.ts'],
    ignores: ['**/*.spec.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector:
            "MemberExpression[object.name='Math'][property.name!=/^(sqrt|abs|min|max|floor|ceil|round|trunc|sign|PI)$/]",
          message: 'This is not the same to the last bit in every engine: only + - * / and Math.sqrt are.',
        },
        {
          selector: "BinaryExpression[operator='**'] > :not(Literal[value=2]).right",
          message: 'Powers are not the same to the last bit in every engine; squares are.',
        },
      ],
    },
  },
  {
    // Tests read what servers and doubles give, which has no type of its own.
    files: ['**/*.spec.ts', '**/testing/**/*.ts', 'e2e/**/*.ts', 'bench/**/*.ts'],
    rules: {
      '@typescript-eslint/no-unsafe-assignment': 'off',
      '@typescript-eslint/no-unsafe-member-access': 'off',
      '@typescript-eslint/no-unsafe-return': 'off',
      '@typescript-eslint/no-unsafe-argument': 'off',
      '@typescript-eslint/no-unsafe-call': 'off',
      '@typescript-eslint/no-implied-eval': 'off',
      '@typescript-eslint/require-await': 'off',
      '@typescript-eslint/await-thenable': 'off',
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
