import { existsSync } from 'node:fs';
import { globSync } from 'tinyglobby';
import { WrongUse } from './files';
import { json, type Output } from './output';

/** The most files that a pattern stands for. */
const MOST_FILES = 2000;

/**
 * Files as they are named, and in place of each pattern (`boards/**\/*.json`) those that it fits, in their order: where no shell has put them in. Throws WrongUse
 * where it fits none.
 */
function filesOf(named: readonly string[]): string[] {
  return named.flatMap((name) => {
    if (!/[*?[{]/.test(name) || existsSync(name)) return [name];
    const found = globSync([name], { onlyFiles: true, expandDirectories: false, followSymbolicLinks: false }).sort();
    if (found.length === 0) throw new WrongUse(`${name} fits no file`);
    if (found.length > MOST_FILES) throw new WrongUse(`${name} fits ${found.length} files; ${MOST_FILES} is the most`);
    return found;
  });
}

/** Does one file, through an output of its own, and gives its exit code. */
type One = (file: string, output: Output) => Promise<number>;

/**
 * Does something to files one after the other, and gives the worst of their exit codes. Of several, what is said of each stands under its name, and `--json` prints one list
 * with each file and what is known of it.
 */
export async function forEachFile(
  named: readonly string[],
  { json: isJson, to }: { readonly json?: boolean; readonly to?: string | undefined },
  output: Output,
  act: One,
): Promise<number> {
  const files = filesOf(named);
  const [only, ...more] = files;
  if (only !== undefined && more.length === 0) return act(only, output);
  if (to !== undefined) throw new WrongUse('several files cannot be written to one: give one file with --output');
  if (files.filter((file) => file === '-').length > 1) throw new WrongUse('standard input can be read only once');
  const told: { file: string; code: number; result: unknown }[] = [];
  for (const file of files) {
    const parts: string[] = [];
    const own = isJson ? { ...output, out: (part: string) => void parts.push(part) } : output;
    if (!isJson) output.out(`${told.length === 0 ? '' : '\n'}== ${file}\n`);
    const code = await act(file, own);
    told.push({ file, code, result: parsed(parts.join('')) });
  }
  if (isJson) output.out(json(told));
  return Math.max(...told.map(({ code }) => code));
}

/** What was printed, as a value; null where nothing was. */
function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}
