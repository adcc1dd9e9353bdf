import prettier from 'eslint-config-prettier';
import vue from 'eslint-plugin-vue';
import ts from 'typescript-eslint';

/** Lengths that a file and a function may have; a file that outgrows them has a second subject in it. */
const lengths = (file, fn) => ({
  'max-lines': ['error', { max: file, skipBlankLines: false, skipComments: false }],
  'max-lines-per-function': ['error', { max: fn, skipBlankLines: true, skipComments: true, IIFEs: true }],
});

export default ts.config(
  { ignores: ['dist/', 'build/', 'public/', 'node_modules/', 'bench/node_modules/', 'bench/build/', 'test-results/', 'playwright-report/', 'docs/'] },
  ...ts.configs.strict,
  ...vue.configs['flat/recommended'],
  {
    files: ['**/*.vue'],
    languageOptions: { parserOptions: { parser: ts.parser } },
  },
  {
    rules: {
      eqeqeq: 'error',
      'no-console': 'error',
      'no-empty': ['error', { allowEmptyCatch: false }],
      'no-restricted-syntax': ['error', { selector: 'ExportDefaultDeclaration[declaration.type="ClassDeclaration"]', message: 'Export classes by name.' }],
      '@typescript-eslint/explicit-module-boundary-types': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/no-non-null-assertion': 'error',
      '@typescript-eslint/no-invalid-void-type': 'off',
      '@typescript-eslint/no-extraneous-class': 'off',
      'vue/multi-word-component-names': 'off',
      'vue/require-default-prop': 'off',
      'vue/block-lang': ['error', { script: { lang: 'ts' } }],
      'vue/component-api-style': ['error', ['script-setup']],
    },
  },
  { files: ['src/core/**/*.ts'], rules: { ...lengths(400, 60), 'max-len': ['error', { code: 160, ignoreStrings: true, ignoreTemplateLiterals: true, ignoreUrls: true }], 'no-restricted-globals': ['error', 'window', 'document', 'process', 'performance', 'Buffer', 'self', 'globalThis', 'setTimeout'] } },
  // Loops over all points of an edge, in one piece for speed.
  { files: ['src/core/outline/cubicFit.ts', 'src/core/outline/sideFit.ts'], rules: lengths(400, 100) },
  { files: ['src/{formats,engine,machines,offline,storage,stores,ui,stages,app}/**/*.ts', 'cli/**/*.ts', 'server/**/*.ts'], rules: lengths(300, 260) },
  { files: ['**/*.vue'], rules: { 'max-lines': ['error', { max: 300 }], '@typescript-eslint/explicit-module-boundary-types': 'off' } },
  { files: ['**/*.test.ts', '**/*.spec.ts', 'tests/**/*.ts'], rules: { 'max-lines-per-function': 'off', '@typescript-eslint/no-non-null-assertion': 'off', '@typescript-eslint/explicit-module-boundary-types': 'off' } },
  { files: ['scripts/**/*.{mjs,ts}', 'bench/**/*.ts', '*.config.*', 'src/stores/**/*.ts', 'src/stages/**/use*.ts', 'src/ui/use*.ts', 'src/app/router.ts'], rules: { '@typescript-eslint/explicit-module-boundary-types': 'off', 'no-console': 'off' } },
  prettier,
);
