import type { Reporter, TestModule } from 'vitest/node';

/** Last line: 'N passed, N failed', which any log reader understands. */
export default class SummaryReporter implements Reporter {
  onTestRunEnd(modules: readonly TestModule[], errors: readonly unknown[]): void {
    let passed = 0;
    let skipped = 0;
    let failed = errors.length;
    for (const m of modules) {
      if (m.errors().length > 0) failed++;
      for (const t of m.children.allTests()) {
        const { state } = t.result();
        if (state === 'passed') passed++;
        else if (state === 'failed') failed++;
        else skipped++;
      }
    }
    console.log(`\n${passed} passed, ${failed} failed${skipped > 0 ? `, ${skipped} skipped` : ''}`);
  }
}
