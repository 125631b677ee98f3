import fc from 'fast-check';
import { breadboardKinds, jumperColours, rows } from '../board';
import { type CommandWord, type Job, thingsOn } from '../job';

/** An arbitrary of lines for every command: the compiler asks for each, so that no command escapes the laws. */
type Lines = { readonly [W in CommandWord]: fc.Arbitrary<string> };

/** Random lines of every command as a person might type them at a job's board, right and wrong ones. */
export function arbitraryCommands({ board }: Job): Lines {
  const thing = fc.constantFrom(...thingsOn(board), 'u1', 'U9', 'w999', 'b1', 'b9', 'constructor', '');
  const hole = fc
    .tuple(fc.constantFrom(...rows), fc.integer({ min: 0, max: 64 }))
    .map(([row, column]) => `b1.${row}${column}`);
  const pin = fc
    .tuple(thing, fc.constantFrom('1', '2', '7', '14', 'A', 'K', '1Y', '99', ''))
    .map(([t, p]) => `${t}.${p}`);
  const place = fc.oneof(
    hole,
    pin,
    fc.constantFrom('GND', 'vcc', '+', 'bottom-', 'b1.top+', 'left-top+', 'b2.e1', '>'),
  );
  const word = fc.oneof(fc.string({ maxLength: 8 }), fc.constantFrom('4k7', '100n', 'red', 'K', '74HC00', '__proto__'));
  const part = fc.constantFrom('74HC00', '7404', 'led', 'resistor', 'display-cathode', 'supply', '9999', 'LED');
  const line = (first: string, ...rest: fc.Arbitrary<string>[]): fc.Arbitrary<string> =>
    fc.tuple(...rest).map((words) => [first, ...words].join(' '));
  return {
    wire: fc.tuple(place, fc.constantFrom('>', ' > ', '  >'), place).map((three) => three.join('')),
    board: line('board', fc.constantFrom(...breadboardKinds, 'b2', 'bh1r', 'none', ''), fc.constantFrom('', 'right')),
    note: line('note', hole, fc.string({ maxLength: 200 })),
    pull: line('pull', thing),
    seat: fc.oneof(line('seat', part), line('Seat', part, hole)),
    move: line('move', thing, place),
    rotate: fc.oneof(line('rotate', thing), line('turn', thing)),
    value: line('value', thing, word),
    span: line('span', thing, fc.oneof(fc.constantFrom('1', '3', '8', '99'), word)),
    limit: line('limit', thing, fc.oneof(fc.constantFrom('100', '0', '99999', '2A', '5 mA'), word)),
    label: fc.oneof(line('label', thing, word), line('label', pin, word)),
    fix: line('fix', thing),
    unfix: line('unfix', thing),
    replace: line('replace', thing, fc.oneof(part, word)),
    colour: line('colour', thing, fc.oneof(fc.constantFrom<string>(...jumperColours, 'plain'), word)),
    straight: line('straight', thing),
    bend: fc.oneof(line('bend', thing), line('bend', thing, hole), line('bend', thing, hole, place)),
  };
}
