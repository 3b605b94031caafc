import { pictureBlob } from '~/utils/pictures'

/** An address of a kept picture for an image, as long as it is shown. */
export function usePictureUrl(id: () => string | null | undefined) {
  const store = useJob()
  const url = ref('')
  /** neither here nor to be had */
  const gone = ref(false)
  const drop = () => {
    if (url.value) URL.revokeObjectURL(url.value)
    url.value = ''
  }
  watch(
    id,
    async wanted => {
      drop()
      const blob = wanted && store.id ? await pictureBlob(store.id, wanted) : null
      if (wanted !== id()) return
      gone.value = !!wanted && !blob
      if (blob) url.value = URL.createObjectURL(blob)
    },
    { immediate: true },
  )
  onBeforeUnmount(drop)
  return { url, gone }
}
