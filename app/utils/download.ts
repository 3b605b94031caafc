/** Hands something made here to the browser as a file. */
export function downloadBlob(name: string, blob: Blob): void {
  const url = URL.createObjectURL(blob)
  const a = document.createElement('a')
  a.href = url
  a.download = name
  a.click()
  URL.revokeObjectURL(url)
}

export const downloadText = (name: string, text: string, type: string): void => downloadBlob(name, new Blob([text], { type }))

/** @returns the file that was picked, taken out of its input so that the same one can be picked again */
export function pickedFile(e: Event): File | null {
  const input = e.target as HTMLInputElement
  const file = input.files?.[0] ?? null
  input.value = ''
  return file
}

/** A name of a job as one of a file. */
export const fileName = (name: string, otherwise: string): string => name.replace(/[^\p{L}\p{N} _-]+/gu, '').trim() || otherwise

/** A file that the server makes. @throws Error with what the server says, TypeError where there is no connection */
export async function fetchFile(path: string): Promise<Blob> {
  const response = await fetch(path)
  if (response.ok) return response.blob()
  const problem = (await response.json().catch(() => ({}))) as { detail?: string }
  throw new Error(problem.detail ?? `The server answered ${response.status}.`)
}
