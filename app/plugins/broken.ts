import Broken from '~/error.vue'

/** What tells that a part of the program is missing comes with its first file, never as a part of its own. */
export default defineNuxtPlugin(nuxt => {
  nuxt.vueApp.component('BrokenPage', Broken)
})
