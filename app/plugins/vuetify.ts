import { createVuetify } from 'vuetify'
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg'

const colours = (dark: boolean) => ({
  dark,
  colors: dark
    ? {
        'background': '#171410',
        'surface': '#1f1b16',
        'primary': '#efe7d8',
        'secondary': '#84b9e4',
        'error': '#ff9478',
        'success': '#84cf9e',
        'on-background': '#efe7d8',
        'on-surface': '#efe7d8',
        'on-primary': '#171410',
      }
    : {
        'background': '#f4f1ea',
        'surface': '#fbf9f4',
        'primary': '#191d22',
        'secondary': '#1d5c8f',
        'error': '#b3341a',
        'success': '#27633f',
        'on-background': '#191d22',
        'on-surface': '#191d22',
        'on-primary': '#fbf9f4',
      },
})

export default defineNuxtPlugin(nuxt => {
  const field = { variant: 'outlined', density: 'compact', hideDetails: 'auto', color: 'primary' } as const
  nuxt.vueApp.use(
    createVuetify({
      theme: { defaultTheme: 'sun', themes: { sun: colours(false), night: colours(true) } },
      icons: { defaultSet: 'mdi', aliases, sets: { mdi } },
      defaults: {
        VTextField: field,
        VSelect: field,
        VTextarea: field,
        VAutocomplete: field,
        VCheckbox: { density: 'compact', hideDetails: true, color: 'primary' },
        VDialog: { maxWidth: 560 },
      },
    }),
  )
})
