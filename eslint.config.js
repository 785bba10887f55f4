import js from '@eslint/js';
import vue from 'eslint-plugin-vue';
import tseslint from 'typescript-eslint';

const ENGINE_DEPENDENT = [
  'exp',
  'expm1',
  'log',
  'log1p',
  'log2',
  'pow',
  'sin',
  'cos',
  'tan',
  'asin',
  'acos',
  'atan',
  'atan2',
  'sinh',
  'cosh',
  'tanh',
  'cbrt',
  'hypot',
];

export default tseslint.config(
  {
    ignores: [
      '**/dist/**',
      '**/node_modules/**',
      '.verdict/**',
      'web/src/generated/**',
      'server/drizzle/**',
      'test-results/**',
    ],
  },
  js.configs.recommended,
  ...tseslint.configs.strict,
  ...vue.configs['flat/recommended'],
  {
    languageOptions: { parserOptions: { parser: tseslint.parser } },
    rules: {
      eqeqeq: 'error',
      'no-loss-of-precision': 'off', // Published coefficients stand as they were published.
      'no-console': 'error',
      'no-undef': 'off', // The compiler knows better.
      '@typescript-eslint/no-non-null-assertion': 'off', // With noUncheckedIndexedAccess, `!` states an index that was checked.
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/no-dynamic-delete': 'off',
      // Layout of templates is Prettier's.
      'vue/max-attributes-per-line': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/multiline-html-element-content-newline': 'off',
      'vue/html-indent': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/html-self-closing': 'off',
    },
  },
  {
    files: ['core/src/**/*.ts'],
    ignores: ['core/src/numeric/elementary.ts'],
    rules: {
      'no-restricted-properties': [
        'error',
        ...ENGINE_DEPENDENT.map((property) => ({
          object: 'Math',
          property,
          message: 'Engines round this differently, and evidence must recompute bit for bit: use numeric/elementary.',
        })),
        { object: 'Math', property: 'random', message: 'Draw from a stream (random/stream): every result has a seed.' },
        { object: 'Date', property: 'now', message: 'The core has no clock.' },
      ],
    },
  },
  {
    files: ['*/src/**/*.ts'],
    // Set-ups: lists of small functions over what they share.
    ignores: ['web/src/**/use-*.ts', 'web/src/stores/**', 'server/src/http/routes.ts'],
    rules: { 'max-lines-per-function': ['error', { max: 60, skipBlankLines: true, skipComments: true }] },
  },
  // An analysis without repeated work is a generator that never yields.
  { files: ['core/src/analyses/**'], rules: { 'require-yield': 'off' } },
  {
    files: [
      'scripts/**',
      '**/*.config.*',
      'bench/**',
      'calibrate/**',
      'fuzz/**',
      'load/**',
      'words/main.ts',
      'cli/bin/**',
    ],
    rules: { 'no-console': 'off' },
  },
  { files: ['server/src/**'], rules: { '@typescript-eslint/no-invalid-void-type': 'off' } },
);
