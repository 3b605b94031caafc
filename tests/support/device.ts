/** What lies in a browser: its databases, storages and caches, as text. */
import type { Page } from '@playwright/test'

export const onDevice = (page: Page): Promise<string> =>
  page.evaluate(async () => {
    const out: string[] = [JSON.stringify(localStorage), JSON.stringify(sessionStorage)]
    const latin = (v: ArrayBuffer) => new TextDecoder('latin1').decode(v)
    for (const { name } of await indexedDB.databases()) {
      const db = await new Promise<IDBDatabase>((done, failed) => {
        const r = indexedDB.open(name!)
        r.onsuccess = () => done(r.result)
        r.onerror = () => failed(r.error)
      })
      for (const store of db.objectStoreNames) {
        if (store === 'blocks') continue
        const all = await new Promise<unknown[]>(done => {
          const r = db.transaction(store).objectStore(store).getAll()
          r.onsuccess = () => done(r.result)
        })
        out.push(JSON.stringify(all, (_k, v: unknown) => (v instanceof ArrayBuffer ? latin(v) : v)))
      }
      db.close()
    }
    for (const name of await caches.keys()) for (const r of await (await caches.open(name)).keys()) out.push(r.url)
    return out.join('\n')
  })
