import js from '@eslint/js'
import prettier from 'eslint-config-prettier'
import vue from 'eslint-plugin-vue'
import tseslint from 'typescript-eslint'

export default tseslint.config(
  {
    ignores: [
      '**/dist/',
      '**/generated/',
      'console/src/api/schema.d.ts',
      '.venv/',
      '.run/',
      'docs/',
      'demo/',
      'intavo/',
    ],
  },
  js.configs.recommended,
  ...tseslint.configs.strict,
  ...vue.configs['flat/recommended'],
  { files: ['**/*.vue'], languageOptions: { parserOptions: { parser: tseslint.parser } } },
  {
    rules: {
      // The types check this, and know the browser's globals.
      'no-undef': 'off',
      // v-html would be the only way past it; it is not used.
      'vue/no-v-html': 'error',
      '@typescript-eslint/no-explicit-any': 'error',
      // Optional props are told apart from absent ones by their types.
      'vue/require-default-prop': 'off',
    },
  },
  {
    files: ['**/*.test.ts', 'console/src/testing/**'],
    // What is not there fails the test where it is used.
    rules: { '@typescript-eslint/no-non-null-assertion': 'off' },
  },
  prettier,
)
