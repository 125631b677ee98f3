import {
  closeSync,
  fsyncSync,
  openSync,
  readSync,
  realpathSync,
  renameSync,
  rmSync,
  statSync,
  writeSync,
} from 'node:fs';
import { basename, dirname, join } from 'node:path';

/** The command line was used wrongly: one line says how, and the exit code is 2. */
export class WrongUse extends Error {}

/** Standard input, as a file is named. */
const STDIN = '-';
const STDIN_FD = 0;
const CHUNK = 65_536;

/** Why the system refused something, without the path, which is said beside it. */
function because(error: unknown): string {
  const { code, message } = error as NodeJS.ErrnoException;
  const known: Readonly<Record<string, string>> = {
    ENOENT: 'there is no such file or folder',
    EACCES: 'it may not be opened',
    EPERM: 'it may not be changed',
    EISDIR: 'it is a folder',
    ENOTDIR: 'a part of its path is no folder',
    ENOSPC: 'the disk is full',
    EROFS: 'the disk can only be read',
    ENAMETOOLONG: 'its name is too long',
  };
  return known[code ?? ''] ?? message?.split(',')[0] ?? 'unknown';
}

/**
 * The text of a file, or of standard input for `-`; null when it holds more than `limit` bytes, of which no more are read, be it a file, a
 * pipe or a device. Throws WrongUse where it cannot be read.
 */
export function readBounded(path: string, limit: number): string | null {
  const name = path === STDIN ? 'standard input' : path;
  let file: number | undefined;
  try {
    file = path === STDIN ? STDIN_FD : openSync(path, 'r');
    const chunks: Buffer[] = [];
    for (let length = 0; ; ) {
      const chunk = Buffer.allocUnsafe(CHUNK);
      const got = readSync(file, chunk, 0, CHUNK, null);
      if (got === 0) return Buffer.concat(chunks).toString('utf8');
      length += got;
      if (length > limit) return null;
      chunks.push(chunk.subarray(0, got));
    }
  } catch (error) {
    throw new WrongUse(`${name} cannot be read: ${because(error)}`);
  } finally {
    if (file !== undefined && file !== STDIN_FD) closeSync(file);
  }
}

/** What may be written to: endings that fit what is written, and files that are read and so must stay. */
export interface Target {
  readonly endings: readonly string[];
  readonly inputs: readonly string[];
}

/** Throws WrongUse where a file must not be written: the ending does not fit, or it is one of those that are read. */
export function checkTarget(path: string, { endings, inputs }: Target): void {
  if (!endings.some((ending) => path.toLowerCase().endsWith(ending)))
    throw new WrongUse(`${path} must end in ${endings.join(' or ')}`);
  if (inputs.some((input) => input !== STDIN && isSame(input, path)))
    throw new WrongUse(`${path} is read from; name another file to write to`);
}

function isSame(a: string, b: string): boolean {
  const real = (path: string): string => {
    try {
      return realpathSync(path);
    } catch {
      return path;
    }
  };
  return real(a) === real(b);
}

/** Writes a file whole or not at all: beside it first, then renamed. Throws WrongUse where that cannot be. */
export function writeWhole(path: string, content: string | Uint8Array): void {
  const beside = join(dirname(path), `.${basename(path).slice(0, 100)}.${process.pid}.part`);
  let file: number | undefined;
  try {
    if (isDirectory(path)) throw Object.assign(new Error(), { code: 'EISDIR' });
    file = openSync(beside, 'wx');
    const bytes = typeof content === 'string' ? Buffer.from(content) : content;
    for (let at = 0; at < bytes.length; ) at += writeSync(file, bytes, at);
    fsyncSync(file);
    closeSync(file);
    file = undefined;
    renameSync(beside, path);
  } catch (error) {
    if (file !== undefined) closeSync(file);
    rmSync(beside, { force: true });
    throw new WrongUse(`${path} cannot be written: ${because(error)}`);
  }
}

function isDirectory(path: string): boolean {
  try {
    return statSync(path).isDirectory();
  } catch {
    return false;
  }
}
