import { spawnSync } from 'node:child_process';
import { describe, expect, it } from 'vitest';
import { root } from './server';

describe('what CONTRIBUTING offers beside the tests', () => {
  it('npm run fuzz takes changed job files through every stage, as pictures too', () => {
    const { status, stdout, stderr } = spawnSync('npm', ['run', 'fuzz', '--', '--seconds', '1', '--seed', '1'], {
      cwd: root,
      encoding: 'utf8',
    });
    expect(status, stderr).toBe(0);
    expect(stdout).toMatch(/from seed 1: .*none failed/);
  });
});
