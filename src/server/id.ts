/** Ids of what is stored. */

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i

/** Ids in addresses are checked before they reach the database. */
export const isId = (text: unknown): text is string => typeof text === 'string' && UUID.test(text)
