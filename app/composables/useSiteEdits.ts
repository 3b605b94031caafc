import { insert, update } from '#core/job'
import type { FloorRow, Site } from '#core/job'
import { followSite, SHAPE_FIELDS, withSite } from '#core/site'
import { v7 as uuidv7 } from 'uuid'
import type { Edit } from '~/stores/job'

/** The site's own figures; where its shape changes, the rooms and places in it come along in the same change. */
export function useSiteEdits() {
  const store = useOpened()

  function setSite(fields: Partial<Site>, label: string) {
    const edits: Edit[] = [{ table: 'sites', op: 'update', rowId: store.site.id, fields }]
    const isShape = SHAPE_FIELDS.some(f => f in fields && fields[f] !== undefined && fields[f] !== store.site[f])
    return store.commit([...edits, ...(isShape ? followSite(store.doc, withSite(store.doc, fields)) : [])], label)
  }

  /** A floor that differs gets a row of its own; one that is as all others needs none. */
  function setFloor(level: number, fields: Partial<FloorRow>, label: string) {
    const doc = store.doc
    const row = doc.floors.find(f => f.level === level)
    const next = { level, name: null, heightM: null, material: null, use: null, ...row, ...fields, id: row?.id ?? uuidv7() }
    const floors = [...doc.floors.filter(f => f.level !== level), next]
    const { id: rowId, version: _version, ...whole } = next
    const edit = row ? update('floors', rowId, fields) : insert('floors', whole, rowId)
    return store.commit([edit, ...('heightM' in fields ? followSite(doc, { sites: doc.sites, floors }) : [])], label)
  }
  return { setSite, setFloor }
}
