import { finding } from '../../finding';
import type { Rule } from '../rule';
import { isAt, transistorsOf } from '../transistor';

/** Emitter and collector, or source and drain, exchanged: the one that belongs to the load is at the rail. */
export const transistorReversed: Rule = {
  id: 'transistor-reversed',
  *check(c) {
    for (const { ref, kind, emitter, collector, home } of transistorsOf(c)) {
      if (!isAt(c, collector.net, home) || isAt(c, emitter.net, home)) continue;
      const [there, belongs] = kind === 'nmos' ? ['drain', 'source'] : ['collector', 'emitter'];
      const facts = { ref, there, belongs, rail: home };
      yield finding('transistor-reversed', [{ kind: 'part', ref }], facts, `rotate ${ref}`);
    }
  },
};
