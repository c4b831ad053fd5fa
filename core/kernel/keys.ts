/** The keys of a table, as a list that is never empty: for a choice of one of them. */
export const keysOf = <K extends string>(table: Readonly<Record<K, unknown>>) => Object.keys(table) as [K, ...K[]];
