/** States over which a school is surveyed: at once in the browser, and where a process has the time. */
export const SURVEYED = 40
export const SURVEYED_LONG = 1000
