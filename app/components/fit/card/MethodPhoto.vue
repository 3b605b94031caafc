<script setup lang="ts">
import type { MethodPhoto } from '#core/card'
import { pictureBlob } from '~/utils/pictures'

/** A photograph that lies with another job: as it was done there. */
const props = defineProps<{ photo: MethodPhoto }>()
const url = ref<string | null>(null)
watch(
  () => props.photo.id,
  async () => {
    const blob = await pictureBlob(props.photo.jobId, props.photo.id)
    url.value = blob && URL.createObjectURL(blob)
  },
  { immediate: true },
)
onUnmounted(() => url.value && URL.revokeObjectURL(url.value))
</script>

<template>
  <figure>
    <img v-if="url" :src="url" :alt="photo.caption ?? 'as it was done the first time'" />
    <figcaption class="soft">{{ photo.caption ?? 'as it was done the first time' }}</figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
  width: 148px;
}
img {
  width: 148px;
  height: 111px;
  object-fit: cover;
  border: 1px solid var(--mv-line);
}
figcaption {
  font-size: 12px;
}
</style>
