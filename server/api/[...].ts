import { problem } from '../http/problem'

/** An address of the API that is none: said as such, never by a page. */
export default defineEventHandler(() => problem(404, 'There is nothing at this address.'))
