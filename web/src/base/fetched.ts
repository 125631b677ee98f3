import { type ComponentType, type LazyExoticComponent, lazy } from 'react';

/** A component whose code comes when it is first drawn, or before. */
export interface Fetched<Props extends object> {
  readonly Shown: LazyExoticComponent<ComponentType<Props>>;
  /** Fetches the code, so that nothing waits for it when it is drawn. Rejects when it cannot be fetched now; drawing it asks again. */
  readonly fetch: () => Promise<void>;
  /** Whether the code is here. */
  readonly isHere: () => boolean;
}

/**
 * A component that is fetched apart from what draws it. Code that is here is handed to React at once: what has to wait even for a moment shows what stands in for
 * it, and then React leaves that standing for 300 ms.
 */
export function fetched<Props extends object>(load: () => Promise<ComponentType<Props>>): Fetched<Props> {
  let here: { readonly default: ComponentType<Props> } | null = null;
  const fetch = async (): Promise<{ readonly default: ComponentType<Props> }> => {
    here = { default: await load() };
    return here;
  };
  const awaited = (): Promise<{ readonly default: ComponentType<Props> }> => {
    const kept = here;
    if (!kept) return fetch();
    // biome-ignore lint/suspicious/noThenProperty: this is what is wanted, a promise kept before it is given.
    return { then: (keep: (module: typeof kept) => void) => keep(kept) } as unknown as Promise<typeof kept>;
  };
  return { Shown: lazy(awaited), fetch: async () => void (await fetch()), isHere: () => here !== null };
}
