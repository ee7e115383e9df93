/** 75400 ms as '1:15.4' */
export function clockTime(milliseconds: number): string {
  const tenths = Math.round(milliseconds / 100)
  const minutes = Math.floor(tenths / 600)
  const seconds = ((tenths % 600) / 10).toFixed(1).padStart(4, '0')
  return `${minutes}:${seconds}`
}
