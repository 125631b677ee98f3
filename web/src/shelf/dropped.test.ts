import { describe, expect, it } from 'vitest';
import { filesDropped } from './dropped';

type Tree = { readonly [name: string]: string | Tree };

/** A folder as a browser gives it, two entries at a time. */
function entry(name: string, inside: string | Tree): FileSystemEntry {
  if (typeof inside === 'string')
    return {
      name,
      isFile: true,
      isDirectory: false,
      file: (done: (f: File) => void) => done(new File([inside], name)),
    } as never;
  const entries = Object.entries(inside).map(([n, one]) => entry(n, one));
  return {
    name,
    isFile: false,
    isDirectory: true,
    createReader: () => ({ readEntries: (done: (some: FileSystemEntry[]) => void) => done(entries.splice(0, 2)) }),
  } as never;
}
const dropped = async (tree: Tree): Promise<string[]> => {
  const items = Object.entries(tree).map(([name, inside]) => ({ webkitGetAsEntry: () => entry(name, inside) }));
  const files = await filesDropped({ items: items as never, files: [] as never });
  return files.map((file) => file.name);
};

describe('what is dropped on the shelf', () => {
  it('is of folders all that can be imported, at any depth, in the order of the names', async () => {
    const tree = {
      jobs: {
        'b.sheet': '',
        'a.JSON': '',
        'notes.pdf': '',
        more: { 'c.v': '', deep: { 'd.csv': '' } },
        '.git': { index: '' },
      },
    };
    expect(await dropped(tree)).toEqual(['a.JSON', 'b.sheet', 'c.v', 'd.csv']);
  });

  it('is bounded, in number and in depth', async () => {
    const wide = Object.fromEntries(Array.from({ length: 900 }, (_, i) => [`${i}.sheet`, '']));
    expect((await dropped({ wide })).length).toBeLessThanOrEqual(500);
    let deep: Tree = { 'far.sheet': '' };
    for (let n = 0; n < 20; n++) deep = { [`f${n}`]: deep };
    expect(await dropped(deep)).toEqual([]);
  });

  it('without a folder is just the files', async () => {
    const files = [new File([''], 'x.bin')];
    const told = await filesDropped({
      items: [{ webkitGetAsEntry: () => entry('x.bin', '') }] as never,
      files: files as never,
    });
    expect(told).toEqual(files);
  });
});
