/** Pictures under the map: kept on this device, and with the server for the others. */
const keyOf = (id: string): string => `picture:${id}`

export async function storePicture(jobId: string, id: string, file: Blob): Promise<void> {
  await keep(keyOf(id), file)
  await api(`/api/jobs/${jobId}/pictures/${id}`, { method: 'PUT', raw: file })
}

/** @returns null where it is neither here nor to be had */
export async function pictureBlob(jobId: string, id: string): Promise<Blob | null> {
  const here = await kept<Blob>(keyOf(id))
  if (here) return here
  const response = await fetch(`/api/jobs/${jobId}/pictures/${id}`).catch(() => null)
  if (!response?.ok) return null
  const blob = await response.blob()
  await keep(keyOf(id), blob)
  return blob
}
