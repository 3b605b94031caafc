import { standing } from '#core/job'
import { v7 as uuidv7 } from 'uuid'
import { nowUtc } from '~/replica/clock'
import { normalise360 } from '#core/geo'
import type { Step, Sweep } from '#core/job'

type Begun = Pick<Sweep, 'quantity' | 'setupId' | 'band'> &
  Partial<Pick<Sweep, 'axis' | 'slow' | 'stepDeg' | 'dwellS' | 'reference'>>

/** Sweeps of the plan that is shown, and what is kept of them: round the mast, up and down, branch by branch. */
export function useSweeps() {
  const store = useOpened()
  /** the last one of an axis */
  const latest = (axis: Sweep['axis']): Sweep | null =>
    store
      .doc!.sweeps.filter(s => s.axis === axis && s.designId === store.variant.id)
      .reduce<Sweep | null>((a, b) => (!a || b.startedAtUtc > a.startedAtUtc ? b : a), null)
  const stepsOf = (sweep: Sweep | null): Step[] => standing(store.doc.steps).filter(s => s.sweepId === sweep?.id)

  /** @returns its id; null where it could not be kept */
  async function begin(how: Begun, label: string): Promise<string | null> {
    const rowId = uuidv7()
    const fields: Omit<Sweep, 'id' | 'version' | 'stopId'> = {
      designId: store.variant.id,
      startedAtUtc: nowUtc(),
      cellId: null,
      struckDeg: null,
      axis: 'heading',
      slow: false,
      stepDeg: null,
      dwellS: null,
      reference: 'true',
      ...how,
    }
    const bad = await store.commit([{ table: 'sweeps', op: 'insert', rowId, fields }], label)
    return bad.length ? null : rowId
  }
  /** Keeps one step, to a tenth; the one that it replaces is named. */
  function keep(
    sweepId: string,
    s: Pick<Step, 'pass' | 'headingDeg' | 'value'> & { tiltDeg?: number },
    replaces: Step | null | undefined,
  ) {
    const fields: Omit<Step, 'id' | 'version'> = {
      sweepId,
      pass: s.pass,
      headingDeg: normalise360(s.headingDeg),
      tiltDeg: s.tiltDeg ?? null,
      value: Math.round(s.value * 10) / 10,
      takenAtUtc: nowUtc(),
      replacesId: replaces?.id ?? null,
      withdrawn: false,
    }
    return store.commit([{ table: 'steps', op: 'insert', fields }], 'a step')
  }
  /** A step that was a slip is withdrawn: the log keeps that it was there. */
  function takeBack({ id, version: _, ...step }: Step) {
    const fields: Omit<Step, 'id' | 'version'> = { ...step, takenAtUtc: nowUtc(), replacesId: id, withdrawn: true }
    return store.commit([{ table: 'steps', op: 'insert', fields }], 'take a step back')
  }
  return { latest, stepsOf, begin, keep, takeBack }
}
