import { fileURLToPath } from 'node:url'
import vuetify, { transformAssetUrls } from 'vite-plugin-vuetify'

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url))

/** Of `core` a page carries what it uses: its rooms are entered by one front, and nothing there happens by being imported. */
const keptWhole = (id: string): boolean => !id.includes('/core/')

export default defineNuxtConfig({
  // A build has a folder of its own: types are checked meanwhile against the one that was prepared.
  buildDir: process.env.MULTIVOX_BUILD_DIR ?? '.nuxt',
  modules: [
    '@pinia/nuxt',
    '@vueuse/nuxt',
    '@vite-pwa/nuxt',
    'nuxt-auth-utils',
    '@nuxt/eslint',
    async (_options, nuxt) => {
      await (await import('./scripts/validators.mjs')).generateValidators()
      await (await import('./scripts/first-picture.mjs')).generateFirstPicture(!nuxt.options._prepare)
      nuxt.hooks.hook('nitro:init', nitro => {
        nitro.hooks.hook('compiled', async () => {
          const { bundle } = await import('./scripts/lib/database.mjs')
          for (const name of ['terrain', 'archive', 'paper'])
            await bundle(`server/workers/${name}.worker.ts`, `${nitro.options.output.serverDir}/workers/${name}.mjs`)
        })
      })
      nuxt.hooks.hook('vite:extendConfig', config => {
        ;(config.plugins as unknown[]).push(vuetify({ autoImport: true }))
      })
    },
  ],
  ssr: false,
  // Who is signed in is asked by our own store, not by the module's.
  auth: { loadStrategy: 'none' },
  components: [{ path: '~/components', pathPrefix: false }],
  devtools: { enabled: false },
  app: {
    head: {
      title: 'Multivox',
      htmlAttrs: { lang: 'en' },
      meta: [
        { name: 'viewport', content: 'width=device-width, initial-scale=1, viewport-fit=cover' },
        { name: 'theme-color', content: '#f4f1ea' },
        { name: 'description', content: 'From the first reading to the signed-off handover.' },
      ],
      link: [{ rel: 'icon', type: 'image/svg+xml', href: '/icon.svg' }],
    },
  },
  css: [
    'vuetify/styles',
    '@fontsource/atkinson-hyperlegible-next/400.css',
    '@fontsource/atkinson-hyperlegible-next/600.css',
    '@fontsource/atkinson-hyperlegible-next/700.css',
    '@fontsource/atkinson-hyperlegible-mono/400.css',
    '@fontsource/atkinson-hyperlegible-mono/600.css',
    '~/theme/tokens.css',
  ],
  runtimeConfig: {
    databaseUrl: '',
    demo: '',
    dataDir: '',
    /** NUXT_TILES: an address of map tiles, `https://…/{z}/{x}/{y}.png`; none by default */
    tiles: '',
    /** NUXT_BRIDGES: addresses of bridges to modems, `ws://localhost:4312 wss://pole.example:4312`; pages may connect to these alone */
    bridges: '',
    /** NUXT_STANDIN: of the demo alone, the stand-in's pairing code, so that nobody types it */
    standin: '',
    /** NUXT_TRUSTED_PROXY: whose word on address, host and TLS counts: `loopback`, addresses, subnets; none by default */
    trustedProxy: '',
    session: { name: 'multivox', password: '', maxAge: 60 * 60 * 24 * 30, cookie: { sameSite: 'lax', secure: true } },
  },
  srcDir: 'app/',
  serverDir: here('server'),
  alias: { '#core': here('core'), '#demo': here('demo') },
  build: { transpile: ['vuetify'] },
  compatibilityDate: '2026-04-01',
  nitro: {
    // Builds lie side by side: one that is served is never written over.
    ...(process.env.MULTIVOX_OUTPUT ? { output: { dir: process.env.MULTIVOX_OUTPUT } } : {}),
    compressPublicAssets: true,
    prerender: { routes: ['/'], crawlLinks: false },
    alias: { '#core': here('core'), '#demo': here('demo') },
    errorHandler: '~~/server/error',
    esbuild: { options: { target: 'es2022' } },
    typescript: { tsConfig: { include: ['../standins/**/*'] } },
  },
  vite: {
    vue: { template: { transformAssetUrls } },
    worker: { format: 'es', rollupOptions: { treeshake: { moduleSideEffects: keptWhole } } },
    build: { chunkSizeWarningLimit: 1200, rollupOptions: { treeshake: { moduleSideEffects: keptWhole } } },
  },
  typescript: { strict: true, typeCheck: false, tsConfig: { compilerOptions: { noUncheckedIndexedAccess: true } } },
  telemetry: false,
  pwa: {
    // A new version waits until it is taken: see UpdateBar.
    registerType: 'prompt',
    manifest: {
      name: 'Multivox',
      short_name: 'Multivox',
      display: 'standalone',
      start_url: '/',
      background_color: '#f4f1ea',
      theme_color: '#f4f1ea',
      icons: [{ src: '/icon.svg', sizes: 'any', type: 'image/svg+xml', purpose: 'any' }],
    },
    workbox: {
      navigateFallback: '/',
      navigateFallbackDenylist: [/^\/api\//, /^\/c\//],
      globPatterns: ['**/*.{js,css,html,woff2,svg,webmanifest}'],
      maximumFileSizeToCacheInBytes: 4_000_000,
      cleanupOutdatedCaches: true,
    },
    client: { registerPlugin: true },
  },
})
