import { describe, expect, it } from 'vitest';
import { elementAt } from '../element-at';
import { type FindingCode, finding, isError, remedy, says, sentences } from '.';

const codes = Object.keys(sentences) as FindingCode[];
const slots = (code: FindingCode): string[] =>
  [...`${sentences[code].says} ${sentences[code].todo}`.matchAll(/\{(\w+)\}/g)].map((m) => elementAt(m, 1));

describe('sentences', () => {
  it.each(codes)('%s tells what is wrong and what to do, in whole sentences, every fact filled in', (code) => {
    const facts = Object.fromEntries(slots(code).map((slot) => [slot, `<${slot}>`]));
    const f = finding(code, [], facts as never);
    for (const slot of slots(code)) expect(`${says(f)} ${remedy(f)}`).toContain(`<${slot}>`);
    for (const text of [says(f), remedy(f)]) {
      expect(text).not.toMatch(/[{}]|undefined/);
      expect(text).toMatch(/^[A-Z<“]/);
      expect(text).toMatch(/[.>]$/);
    }
    expect(isError(f)).toBe(sentences[code].severity === 'error');
  });

  it('keep facts as they are, whatever is in them', () => {
    const f = finding('sheet/keyword-as-name', [], { name: '$& {name} <b>' });
    expect(says(f)).toBe('$& {name} <b> is a word of the language and cannot name a signal.');
  });
});
