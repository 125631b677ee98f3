import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { chips, findChip } from '../catalogue';
import { cutPin, pinOf } from './pin';

describe('the name of a pin', () => {
  it('is cut into what it was made of, whatever the id holds', () => {
    fc.assert(
      fc.property(fc.stringMatching(/^[A-Z]{1,2}\d{1,3}$/), fc.string(), (ref, id) => {
        expect(cutPin(pinOf(ref, id))).toEqual({ ref, id });
      }),
    );
    for (const { base } of chips)
      for (const { id } of findChip(base)?.pins ?? expect.fail(base))
        expect(cutPin(pinOf('U12', id))).toEqual({ ref: 'U12', id });
  });

  it('without a dot is a part', () => {
    expect(cutPin('U1')).toEqual({ ref: 'U1', id: '' });
  });
});
