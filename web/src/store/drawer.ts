import { byName, type DrawerEntry, type LooseValues, looseValues } from '@saddlebag/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useMemo } from 'react';
import { db } from './db';

/** What the lab has, in the order of numbers; undefined until it is read. The same in every tab. */
export function useDrawer(): readonly DrawerEntry[] | undefined {
  return useLiveQuery(async () => (await db.drawer.toArray()).sort((a, b) => byName(a.part, b.part)));
}

/** The resistors and capacitors of the drawer. */
export function useLooseValues(): LooseValues {
  const drawer = useDrawer();
  return useMemo(() => looseValues(drawer ?? []), [drawer]);
}

/** Puts a part into the drawer, or changes what is there of it. */
export async function keepEntry(entry: DrawerEntry): Promise<void> {
  await db.drawer.put(entry);
}

/** Takes a part out of the drawer. */
export async function dropEntry(part: string): Promise<void> {
  await db.drawer.delete(part);
}

/** Replaces all that is in the drawer; gives back what was there, so that it can be undone. */
export async function replaceDrawer(entries: readonly DrawerEntry[]): Promise<readonly DrawerEntry[]> {
  return db.transaction('rw', db.drawer, async () => {
    const before = await db.drawer.toArray();
    await db.drawer.clear();
    await db.drawer.bulkPut([...entries]);
    return before;
  });
}
