import vue from 'eslint-plugin-vue'
import ts from 'typescript-eslint'

// Imports run one way: app → screens → features → outbox, api, ui.
const forbid = (files, ...folders) => ({
  files: files.map((f) => `src/${f}/**/*.{ts,vue}`),
  rules: { 'no-restricted-imports': ['error', { patterns: folders.map((f) => ({ group: [`@/${f}/*`, `**/${f}/*`], message: `imports run one way: this folder knows no ${f}` })) }] },
})

export default ts.config(
  { ignores: ['src/api/schema.ts', 'dist'] },
  ...ts.configs.recommended,
  ...vue.configs['flat/recommended'],
  { files: ['**/*.vue'], languageOptions: { parserOptions: { parser: ts.parser } } },
  {
    rules: {
      'vue/multi-word-component-names': 'off',
      'vue/max-attributes-per-line': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/html-self-closing': 'off',
      'vue/html-indent': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/multiline-html-element-content-newline': 'off',
      'vue/attributes-order': 'off',
    },
  },
  forbid(['screens'], 'app'),
  forbid(['features'], 'app', 'screens'),
  forbid(['outbox', 'api', 'ui'], 'app', 'screens', 'features'),
)
