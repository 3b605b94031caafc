// @ts-check
import withNuxt from './.nuxt/eslint.config.mjs'

/** Dependencies point one way: core ← shared ← server, app. Core may use a short list of pure libraries. */
const only = (files, allowed, message) => ({
  files, ignores: ['**/*.test.ts'],
  rules: { 'no-restricted-imports': ['error', { patterns: [{ regex: allowed, message }] }] },
})

export default withNuxt(
  { ignores: ['app/generated/**', 'server/database/migrations/**', 'bench/**/*.c'] },
  { rules: { '@stylistic/max-statements-per-line': 'off', 'vue/multiline-html-element-content-newline': 'off', 'vue/multi-word-component-names': 'off', 'vue/max-attributes-per-line': 'off', 'vue/singleline-html-element-content-newline': 'off', 'vue/html-self-closing': ['error', { html: { void: 'never', normal: 'always', component: 'always' }, svg: 'always' }], '@stylistic/quote-props': 'off', 'vue/first-attribute-linebreak': 'off', 'vue/html-closing-bracket-newline': 'off', '@stylistic/operator-linebreak': 'off', '@stylistic/multiline-ternary': 'off', '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }] } },
  { files: ['scripts/**/*.mjs', 'bench/**/*.mjs'], rules: { '@typescript-eslint/no-explicit-any': 'off' } },
  only(['core/**/*.ts'], '^(?!\\.{1,2}/|@sinclair/typebox$|geographiclib-geodesic$|geomagnetism$|suncalc$)|/(app|server|shared|demo|scripts)/', 'core is pure: no interface, server, Node or browser API'),
  only(['shared/**/*.ts'], '/(app|server)/|^(vue|nuxt|h3|node:)', 'shared knows core alone'),
  only(['server/**/*.ts'], '(^~|/app/)', 'the server does not know the interface'),
  { files: ['core/**/*.ts'], rules: { 'no-restricted-globals': ['error', 'window', 'document', 'fetch', 'process', 'localStorage', 'navigator', 'Buffer'] } },
)
