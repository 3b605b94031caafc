/** A spot with every field, as both sides check it. */
export const SPOT = {
  name: 'Hall',
  eastM: 0,
  northM: 0,
  upM: 1,
  indoors: true,
  needed: false,
  people: null,
  use: null,
  needDbm: null,
  hangs: null,
  station: null,
  note: null,
}
