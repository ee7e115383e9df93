/** Longest algorithm that is read, in turns; counted at every level, so also what is later thrown away. */
export const TURN_LIMIT = 10_000
/** Longest text that is read, in characters. */
export const TEXT_LIMIT = 60_000
