/** How far fitters keep donor and inside antenna apart, m. @source 20 ft up or 50 ft along, common practice (no source) */
export const RULE_OF_THUMB = { upM: 6.1, alongM: 15.2 } as const
