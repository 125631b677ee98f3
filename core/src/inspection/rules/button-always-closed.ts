import { pinOf } from '../../board';
import { finding } from '../../finding';
import type { Rule } from '../rule';

/** A push-button seated a quarter turn wrong: both sides of its contact in one strip. */
export const buttonAlwaysClosed: Rule = {
  id: 'button-always-closed',
  partsAlone: true,
  *check(c) {
    for (const { seated } of c.of('push-button')) {
      const strips = ['1', '2', '3', '4'].map((id) => c.stripOf(pinOf(seated.ref, id)));
      const [one, two, three, four] = strips;
      if ((one === two || three === four) && one !== 'no hole')
        yield finding(
          'button-always-closed',
          [{ kind: 'part', ref: seated.ref }],
          { ref: seated.ref, strip: (one === two ? one : three) ?? '' },
          `rotate ${seated.ref}`,
        );
    }
  },
};
