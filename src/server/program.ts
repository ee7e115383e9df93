/** Which program this is: another build may read what is stored with other eyes. */
export const PROGRAM: string = process.env.BUILT_AT ?? 'unbuilt'
