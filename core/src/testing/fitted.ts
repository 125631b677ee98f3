import fc from 'fast-check';
import { lampColours } from '../design';

/** A line of declarations: how many signals it declares, and what stands at its end. */
interface FittedLine {
  readonly count: number;
  readonly end: string;
}

const inputLine: fc.Arbitrary<FittedLine> = fc.oneof(
  fc.record({ count: fc.integer({ min: 1, max: 2 }), end: fc.constantFrom('', ' from switch', ' from button') }),
  fc.constantFrom(...[1, 2, 10, 4096].map((hertz) => ({ count: 1, end: ` from clock ${hertz} Hz` }))),
  fc.constantFrom(...[1, 3, 25].map((hertz) => ({ count: 1, end: ` from timer ${hertz} Hz` }))),
);

const outputLine: fc.Arbitrary<FittedLine> = fc.oneof(
  fc.record({
    count: fc.integer({ min: 1, max: 3 }),
    end: fc.constantFrom('', ...lampColours.map((colour) => ` on lamp ${colour}`)),
  }),
  fc.record({ count: fc.constantFrom(7, 8), end: fc.constantFrom(' on display', ' on display low') }),
  fc.record({ count: fc.integer({ min: 1, max: 10 }), end: fc.constant(' on bar') }),
  fc.constant({ count: 1, end: ' on buzzer' }),
  fc.constant({ count: 9, end: '' }),
);

/** The first buzzer and no other: two would ask more of one output than it gives. */
const withOneBuzzer = (lines: readonly FittedLine[]): FittedLine[] =>
  lines.filter((line, i) => !line.end.endsWith('buzzer') || lines.findIndex((l) => l.end === line.end) === i);

/** A sheet without errors whose signals come from and are shown on what the sheet says; three to six inputs, each output a gate of two of them or an inverter. */
export const arbitraryFittedSheet: fc.Arbitrary<string> = fc
  .tuple(
    fc.array(inputLine, { minLength: 3, maxLength: 3 }),
    fc.array(outputLine, { minLength: 1, maxLength: 3 }).map(withOneBuzzer),
    fc.nat({ max: 99 }),
  )
  .map(([ins, outs, first]) => {
    const named = (lines: readonly FittedLine[], word: string, letter: string) => {
      let n = 0;
      return lines.map(({ count, end }) => {
        const names = Array.from({ length: count }, () => `${letter}${n++}`);
        return { names, text: `${word} ${names.join(' ')}${end}` };
      });
    };
    const [given, shown] = [named(ins, 'in', 'a'), named(outs, 'out', 'Y')];
    const inputs = given.flatMap((line) => line.names);
    const buzzing = shown.filter((line) => line.text.endsWith('buzzer')).flatMap((line) => line.names);
    // As many functions as there are; none is made by an output that has half a dozen lamps to light.
    const pairs = inputs.flatMap((a, i) => inputs.slice(i + 1).map((b) => [a, b]));
    const made = [
      ...pairs.flatMap(([a, b]) => [`${a} & ${b}`, `nand(${a}, ${b})`, `${a} | ${b}`, `${a} ^ ${b}`]),
      ...inputs.map((a) => `~${a}`),
    ];
    const equations = shown
      .flatMap((line) => line.names)
      .map((name, i) => {
        // What drives a buzzer drives no lamps beside.
        if (buzzing.includes(name)) return `${name} = nor(${inputs.slice(0, 2).join(', ')})`;
        return `${name} = ${made[(first + i) % made.length]}`;
      });
    return [...given.map((l) => l.text), ...shown.map((l) => l.text), ...equations].join('\n');
  });
