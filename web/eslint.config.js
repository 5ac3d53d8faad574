import prettier from 'eslint-config-prettier/flat'
import vue from 'eslint-plugin-vue'
import ts from 'typescript-eslint'

// Imports run one way: app → screens → features → parts → outbox, api, ui. No feature knows another one.
const forbid = (folders, ...forbidden) => ({
    files: folders.map((folder) => `**/src/${folder}/**/*.{ts,vue}`),
    rules: {
        'no-restricted-imports': [
            'error',
            {
                patterns: forbidden.map((folder) => ({
                    group: [`@/${folder}/*`, `**/../${folder}/*`],
                    message: `imports run one way: this folder knows no ${folder}`,
                })),
            },
        ],
    },
})

export default ts.config(
    { ignores: ['**/src/api/schema.ts', '**/dist'] },
    ...ts.configs.recommended,
    ...vue.configs['flat/recommended'],
    { files: ['**/*.vue'], languageOptions: { parserOptions: { parser: ts.parser } } },
    {
        rules: {
            'vue/multi-word-component-names': 'off', // Card, Keypad: one word says it
            'vue/max-lines-per-block': ['error', { script: 140, template: 140, style: 160 }],
            'max-lines': ['error', { max: 260 }],
        },
    },
    { files: ['**/*.vue'], rules: { 'max-lines': ['error', { max: 200 }] } },
    forbid(['screens'], 'app'),
    forbid(['features'], 'app', 'screens', 'features'),
    forbid(['parts'], 'app', 'screens', 'features'),
    forbid(['outbox', 'api', 'ui'], 'app', 'screens', 'features', 'parts'),
    prettier,
)
