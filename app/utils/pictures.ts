/** Pictures under the map: kept on this device, sealed, and sent to the server for the others when there is a connection. */

export async function storePicture(jobId: string, id: string, file: Blob): Promise<void> {
  await useSession().own?.store.keepPicture(jobId, id, await file.arrayBuffer(), true)
}

/** @returns null where it is neither here nor to be had */
export async function pictureBlob(jobId: string, id: string): Promise<Blob | null> {
  const store = useSession().own?.store
  const here = await store?.picture(id)
  if (here) return new Blob([here])
  const response = await fetch(`/api/jobs/${jobId}/pictures/${id}`).catch(() => null)
  if (!response?.ok) return null
  const blob = await response.blob()
  await store?.keepPicture(jobId, id, await blob.arrayBuffer(), false)
  return blob
}
