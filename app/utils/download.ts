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
