/** The most files that come from dropped folders, and how deep they are looked into. */
const MOST_FILES = 500;
const DEEPEST = 8;
/** What of a folder is ours to read; a file that is dropped by itself is tried whatever it is called. */
const OURS = /\.(json|sheet|v|sv|csv|txt)$/i;

/** The files that were dropped: themselves, and of folders all that can be imported, at any depth, in the order of their names. */
export async function filesDropped({ items, files }: Pick<DataTransfer, 'items' | 'files'>): Promise<readonly File[]> {
  // Entries can be asked for only while the drop is being told.
  const entries = [...(items ?? [])].flatMap((item) => item.webkitGetAsEntry?.() ?? []);
  if (!entries.some((entry) => entry.isDirectory)) return [...files];
  const found: File[] = [];
  for (const entry of entries) await gather(entry, 0, found);
  return found;
}

async function gather(entry: FileSystemEntry, depth: number, found: File[]): Promise<void> {
  if (found.length >= MOST_FILES || depth > DEEPEST) return;
  if (entry.isFile) {
    if (depth > 0 && !OURS.test(entry.name)) return;
    found.push(await new Promise<File>((done, failed) => (entry as FileSystemFileEntry).file(done, failed)));
  } else {
    const inside = await entriesOf(entry as FileSystemDirectoryEntry);
    for (const one of inside.sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true })))
      await gather(one, depth + 1, found);
  }
}

/** All entries of a folder: browsers give some hundred at a time. */
async function entriesOf(folder: FileSystemDirectoryEntry): Promise<FileSystemEntry[]> {
  const reader = folder.createReader();
  const all: FileSystemEntry[] = [];
  for (;;) {
    const some = await new Promise<FileSystemEntry[]>((done, failed) => reader.readEntries(done, failed));
    if (some.length === 0 || all.length > MOST_FILES * 4) return all;
    all.push(...some);
  }
}
