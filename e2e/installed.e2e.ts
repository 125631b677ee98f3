import { execFileSync, spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, symlinkSync } from 'node:fs';
import { builtinModules } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { root } from './server';

/** The command line as `npm pack` makes it, unpacked where only packages from outside lie beside it. */
function installed(): { readonly bin: string; readonly folder: string } {
  const folder = mkdtempSync(join(tmpdir(), 'saddlebag-installed-'));
  const [made] = JSON.parse(
    execFileSync('npm', ['pack', '--ignore-scripts', '--json', '--pack-destination', folder], {
      cwd: join(root, 'cli'),
      encoding: 'utf8',
    }),
  ) as { filename: string }[];
  const packages = join(folder, 'node_modules');
  mkdirSync(join(packages, 'saddlebag'), { recursive: true });
  const tar = join(folder, made?.filename ?? '');
  execFileSync('tar', ['xzf', tar, '-C', join(packages, 'saddlebag'), '--strip-components=1']);
  for (const name of readdirSync(join(root, 'node_modules')))
    if (!name.startsWith('.') && !name.includes('saddlebag'))
      symlinkSync(join(root, 'node_modules', name), join(packages, name));
  return { bin: join(packages, 'saddlebag/bin/saddlebag.mjs'), folder: join(packages, 'saddlebag') };
}

describe('the command line, packed', () => {
  it('runs without the rest of the repository, and brings all that it says it needs', () => {
    const { bin, folder } = installed();
    const sample = join(root, 'samples/lock-interlock.saddlebag.json');
    const runs = (...args: string[]) => spawnSync(process.execPath, [bin, ...args], { encoding: 'utf8' });
    expect(runs('walk', sample)).toMatchObject({ status: 0, stderr: '' });
    expect(runs('pack', sample)).toMatchObject({ status: 0 });
    expect(runs('picture', sample, '-o', join(folder, 'board.png'))).toMatchObject({ status: 0, stderr: '' });
    expect(runs('--version').stdout.trim()).toBe('0.1.0');
    const { dependencies } = JSON.parse(readFileSync(join(folder, 'package.json'), 'utf8')) as {
      dependencies: Record<string, string>;
    };
    const code = readFileSync(join(folder, 'dist/main.js'), 'utf8');
    const imported = [...code.matchAll(/(?:from|import)\s*\(?["']([^"'./][^"']*)["']/g)]
      .map((m) =>
        (m[1] ?? '')
          .split('/')
          .slice(0, m[1]?.startsWith('@') ? 2 : 1)
          .join('/'),
      )
      .filter((name) => !name.startsWith('node:') && !builtinModules.includes(name) && /^@?[\w/-]+$/.test(name));
    expect([...new Set(imported)].filter((name) => !(name in dependencies))).toEqual([]);
  });
});
