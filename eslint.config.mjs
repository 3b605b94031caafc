// @ts-check
import stylistic from '@stylistic/eslint-plugin'
import { byTheFront } from './scripts/lint/fronts.mjs'
import { actingHandlers } from './scripts/lint/handlers.mjs'
import withNuxt from './.nuxt/eslint.config.mjs'

/** Dependencies point one way: core ← shared ← server, app. Core may use a short list of pure libraries. */
const never = (files, ...patterns) => ({
  files,
  ignores: ['**/*.test.ts'],
  rules: { 'no-restricted-imports': ['error', { patterns }] },
})

const PURE = '@sinclair/typebox$|geographiclib-geodesic$|geomagnetism$|suncalc$|nmea-simple$|graphology$|graphology-dag$'
const IMPURE = {
  regex: `^(?!\\.{1,2}/|${PURE})|/(app|server|shared|demo|scripts)/`,
  message: 'core is pure: no interface, server, Node or browser API',
}

/** Inside core a folder uses only those before it. */
const CORE = [
  ...['geo', 'job', 'radio', 'terrain', 'formats', 'survey', 'site', 'masts', 'catalogue', 'chain', 'separation', 'coverage'],
  ...[
    'fitting',
    'install',
    'aim',
    'connect',
    'promise',
    'prove',
    'judge',
    'solve',
    'card',
    'drawing',
    'report',
    'world',
    'practice',
  ],
]
const later = (/** @type {number} */ i) => ({
  regex: `^\\.\\./(${CORE.slice(i + 1).join('|')})/`,
  message: `core/${CORE[i]} uses only what stands before it: ${CORE.slice(0, i).join(', ')}`,
})

/** The server in layers: routes and `http` over `services`, which hold all SQL, over `data`. */
const INTERFACE = { regex: '(^~|/app/)', message: 'the server does not know the interface' }
const SERVER = [
  never(['server/**/*.ts'], INTERFACE),
  never(['server/data/**/*.ts'], INTERFACE, { regex: '/(services|http|api)/', message: 'data is what services stand on' }),
  never(['server/services/**/*.ts'], INTERFACE, {
    regex: '/(http|api)/|^h3$',
    message: 'a service knows no request: it refuses with `refuse`',
  }),
  never(['server/{api,http,middleware,plugins}/**/*.ts'], INTERFACE, {
    regex: '^drizzle-orm|/data/schema$',
    message: 'SQL stands in a service',
  }),
]

/** Rules of our own. */
const OWN = { rules: { 'acting-handlers': actingHandlers, 'by-the-front': byTheFront } }

/** A line holds one thought. How it is set is the formatter's business. */
const LINE = 140

/** Rules of Vue's plugin about layout, which the formatter decides. */
const LAYOUT = [
  'vue/html-closing-bracket-newline',
  'vue/html-indent',
  'vue/html-self-closing',
  'vue/first-attribute-linebreak',
  'vue/max-attributes-per-line',
  'vue/multiline-html-element-content-newline',
  'vue/singleline-html-element-content-newline',
]

const NEW_ARRAY = {
  selector: 'CallExpression[callee.name="watch"] > ArrowFunctionExpression:first-child > ArrayExpression.body',
  message: 'a new array is never the old one: watch([() => a, () => b], …) runs only when one of them changes',
}
const COMPUTED_FIELD = {
  selector: 'Property[key.name="fields"] > ObjectExpression > Property[computed=true]',
  message: 'a computed name is no field that is checked: setField(table, rowId, field, value) is',
}

export default withNuxt(
  { ignores: ['.nuxt-build/**', 'app/generated/**', 'server/data/migrations/**', 'bench/**/*.c'] },
  {
    rules: {
      'vue/multi-word-component-names': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
    },
  },
  { files: ['**/*.vue'], rules: Object.fromEntries(LAYOUT.map(rule => [rule, 'off'])) },
  { files: ['**/*.{ts,mjs}'], plugins: { stylistic }, rules: { 'stylistic/max-len': ['error', LINE] } },
  { files: ['**/*.vue'], rules: { 'vue/max-len': ['error', { code: LINE, template: LINE }] } },
  {
    files: ['app/**/*.vue'],
    plugins: { multivox: OWN },
    rules: { 'multivox/acting-handlers': 'error' },
  },
  {
    files: ['app/**/*.vue'],
    ignores: ['app/components/MvChoice.vue'],
    rules: {
      'vue/no-restricted-syntax': [
        'error',
        { selector: 'VElement[rawName="v-select"]', message: 'a choice is an MvChoice: it takes what to do with it' },
      ],
    },
  },
  { files: ['app/**/*.{ts,vue}'], rules: { 'no-restricted-syntax': ['error', NEW_ARRAY] } },
  {
    files: ['app/{components,composables,pages,stores}/**/*.{ts,vue}'],
    rules: { 'no-restricted-syntax': ['error', NEW_ARRAY, COMPUTED_FIELD] },
  },
  {
    files: ['{core,shared,server,app,demo,standins}/**/*.{ts,vue}'],
    ignores: ['**/*.test.ts'],
    rules: { 'max-params': ['error', 4] },
  },
  { files: ['scripts/**/*.mjs', 'bench/**/*.mjs'], rules: { '@typescript-eslint/no-explicit-any': 'off' } },
  never(['core/**/*.ts'], IMPURE),
  ...CORE.map((folder, i) => never([`core/${folder}/**/*.ts`], IMPURE, ...(i + 1 < CORE.length ? [later(i)] : []))),
  never(['shared/**/*.ts'], { regex: '/(app|server)/|^(vue|nuxt|h3|node:)', message: 'shared knows core alone' }),
  ...SERVER,
  {
    files: ['{app,server,shared,demo,standins}/**/*.{ts,vue}'],
    ignores: ['**/*.test.ts'],
    plugins: { multivox: OWN },
    rules: { 'multivox/by-the-front': 'error' },
  },
  never(['app/**/*.{ts,vue}'], { regex: '/server/', message: 'the interface knows the server by shared/api alone' }),
  {
    files: ['core/**/*.ts'],
    rules: {
      'no-restricted-globals': ['error', 'window', 'document', 'fetch', 'process', 'localStorage', 'navigator', 'Buffer'],
    },
  },
)
