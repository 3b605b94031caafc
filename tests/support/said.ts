import { say } from '../../core/words'
import type { Words } from '../../core/words'

/** Words as a member with metric units reads them, thin spaces as spaces. */
export const said = (w: Words | null | undefined): string => say(w ?? '', 'metric').replace(/\u2009/g, ' ')
