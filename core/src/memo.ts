/** A function of an immutable object, worked out once for each object and forgotten with it. */
export function onceFor<K extends object, V>(make: (key: K) => V): (key: K) => V {
  const known = new WeakMap<K, { readonly value: V }>();
  return (key) => {
    const there = known.get(key);
    if (there) return there.value;
    const value = make(key);
    known.set(key, { value });
    return value;
  };
}

/** Texts that a function of a text is remembered for, at the most: what comes from outside must not fill the memory. */
const MOST = 2000;

/** A pure function of a text or number, remembered for up to `most` of them; when they are more, it begins anew. */
export function remembered<V, K extends string | number = string>(make: (key: K) => V, most = MOST): (key: K) => V {
  const known = new Map<K, { readonly value: V }>();
  return (key) => {
    const there = known.get(key);
    if (there) return there.value;
    const value = make(key);
    if (known.size >= most) known.clear();
    known.set(key, { value });
    return value;
  };
}
