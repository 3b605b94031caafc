/** What of a house is changed on its drawing, and in the form where there is none. */
export const ON_DRAWING = {
  lengthM: { label: 'Length', low: 3, high: 400 },
  storeyHeightM: { label: 'Storey height', low: 2, high: 6 },
  roofRiseM: { label: 'Roof above eaves, 0 is flat', low: 0, high: 10 },
} as const
export type OnDrawing = keyof typeof ON_DRAWING
