/** Gain of the reading device's own antenna, dBi. @source phone −3 dBi, common practice; assumed */
export const DEVICE_GAIN_DBI = { 'phone': -3, 'router': 0, 'outside antenna': 2 } as const
