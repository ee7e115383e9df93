/** What a way of laying out hands on: an entry that can be put on the bench, or why there is none. */
export type OnEntry<Entry> = (entry: Entry | undefined, why?: string) => void
