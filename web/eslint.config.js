import prettier from 'eslint-config-prettier'
import pluginVue from 'eslint-plugin-vue'
import tseslint from 'typescript-eslint'

export default tseslint.config(
  { ignores: ['src/api/schema.d.ts'] },
  tseslint.configs.recommended,
  pluginVue.configs['flat/recommended'],
  prettier,
  { files: ['**/*.vue'], languageOptions: { parserOptions: { parser: tseslint.parser } } },
  {
    rules: {
      'vue/multi-word-component-names': 'off',
      'no-restricted-syntax': [
        'error',
        {
          selector:
            "NewExpression[callee.name='Date'][arguments.length=0], MemberExpression[object.name='Date'][property.name='now']",
          message: 'Ask present.ts for the present.',
        },
      ],
      'vue/max-len': ['error', { code: 120, template: 120 }],
      'vue/html-self-closing': ['error', { html: { void: 'any' } }],
    },
  },
  { files: ['src/present.ts'], rules: { 'no-restricted-syntax': 'off' } },
)
