/** A function of an object and a text, computed once for each pair while the object lives. */
export function memoised<Owner extends object, Value>(
  compute: (owner: Owner, key: string) => Value,
): (owner: Owner, key: string) => Value {
  const known = new WeakMap<Owner, Map<string, Value>>()
  return (owner, key) => {
    let values = known.get(owner)
    if (!values) known.set(owner, (values = new Map()))
    let value = values.get(key)
    if (value === undefined) values.set(key, (value = compute(owner, key)))
    return value
  }
}
