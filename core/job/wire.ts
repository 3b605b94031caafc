/** Changes as they come over the wire: what the server checks before it looks at anything else. */
import * as Type from '@sinclair/typebox'
import { Id, oneOf } from './fields'
import { MOST_SEQUENCE, TABLES } from './schema'

export const ChangeSchema = Type.Object(
  {
    id: Id,
    table: oneOf(...TABLES),
    rowId: Id,
    op: oneOf('insert', 'update', 'delete'),
    baseVersion: Type.Integer({ minimum: 0, maximum: MOST_SEQUENCE }),
    fields: Type.Record(Type.String({ maxLength: 40 }), Type.Unknown()),
  },
  { additionalProperties: false },
)

/** Most changes of a batch. */
export const MOST_CHANGES = 500

/**
 * The envelope of a batch. Each change in it is checked by itself, so that one that is malformed
 * is refused alone.
 */
export const ChangeBatchSchema = Type.Object(
  {
    /** the browser that wrote them: its own earlier changes are no conflict to its later ones */
    device: Type.Optional(Id),
    /** the sequence up to which the browser knows the job: what came since is answered with the outcome */
    since: Type.Optional(Type.Integer({ minimum: 0, maximum: MOST_SEQUENCE })),
    changes: Type.Array(Type.Unknown(), { minItems: 1, maxItems: MOST_CHANGES }),
  },
  { additionalProperties: false },
)
