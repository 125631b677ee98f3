import { WrongUse } from './files';
import { json, type Output } from './output';

/** Does one file, through an output of its own, and gives its exit code. */
type One = (file: string, output: Output) => Promise<number>;

/**
 * Does something to files one after the other, and gives the worst of their exit codes. Of several, what is said of each stands under its name, and `--json` prints one list
 * with each file and what is known of it.
 */
export async function forEachFile(
  files: readonly string[],
  { json: isJson, to }: { readonly json?: boolean; readonly to?: string | undefined },
  output: Output,
  act: One,
): Promise<number> {
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
