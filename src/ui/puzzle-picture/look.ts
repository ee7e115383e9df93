/** Measures and colours of a flat picture, in its own units: a window is two wide. */
export const BODY = '#10131a'
export const EDGE = { lit: 0.05, sticker: 0.02, bare: 0.01 }
/** From one window to the next. */
export const STEP = 2.1
export const VIEW_BOX = '-1.05 -1.05 4.2 2.1'
