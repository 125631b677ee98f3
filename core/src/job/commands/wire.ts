import {
  type Board,
  extractNets,
  freeHoles,
  type Hole,
  holeXY,
  leadsOf,
  markOf,
  nextFree,
  parseHole,
  partOf,
  pinOf,
  printHole,
  railNamed,
  railsOf,
  stripOf,
  unusableHoles,
} from '../../board';
import { typeOf } from '../../catalogue';
import { elementAt } from '../../element-at';
import { type Finding, finding } from '../../finding';
import { type Command, type CommandKind, does, no, noPart, type Typed, withJumper } from './command';

/** The command without a word of its own: a jumper from one place to another, or one of its ends elsewhere. */
export const wireCommand: CommandKind = {
  usage: ['U1.8 > U3.2', 'b1.e17 > b1.top+', 'GND > U1.7', 'w3.2 > U1.8'],
  words: [2, 2],
  read: wire,
};

/** A place named by the person: one hole, or any free hole of a strip. */
interface End {
  readonly said: string;
  readonly hole: Hole;
  readonly exact: boolean;
}

function wire({ board, words: [from = '', to = ''] }: Typed): Command {
  const end = /^(w\d+)\.([12])$/i.exec(from);
  if (end) return rePlug(board, elementAt(end, 1), end[2] === '1' ? 'from' : 'to', to);
  const [a, b] = endsOf(board, from, to);
  if ('code' in a) return no(a);
  if ('code' in b) return no(b);
  const taken = new Map(unusableHoles(board));
  const p = a.exact ? a.hole : freeHoles(taken, a.hole, b.hole)[0];
  if (!p) return no(finding('hand/strip-full', [], { at: a.said }));
  taken.set(printHole(p), ['this jumper']);
  const q = b.exact ? b.hole : freeHoles(taken, b.hole, p)[0];
  if (!q) return no(finding('hand/strip-full', [], { at: b.said }));
  const jumper = { id: nextFree('w', board.jumpers), from: printHole(p), to: printHole(q) };
  return does({ kind: 'lay-jumper', jumper });
}

/** `w3.2 > U1.8` puts the second end of a jumper elsewhere. */
function rePlug(board: Board, named: string, end: 'from' | 'to', to: string): Command {
  return withJumper({ board }, named, (jumper) => {
    const kept = parseHole(end === 'from' ? jumper.to : jumper.from);
    const target = endOf(board, to, kept);
    if ('code' in target) return no(target);
    const other = kept ?? target.hole;
    const hole = target.exact ? target.hole : freeHoles(unusableHoles(board), target.hole, other)[0];
    if (!hole) return no(finding('hand/strip-full', [], { at: to }));
    return does({ kind: 're-plug', id: jumper.id, end, hole: printHole(hole) });
  });
}

/** Both ends of a jumper; a rail that is named without its board is the one nearest to the other end. */
function endsOf(board: Board, from: string, to: string): readonly [End | Finding, End | Finding] {
  const a = endOf(board, from, null);
  const b = endOf(board, to, 'code' in a ? null : a.hole);
  return ['code' in b ? a : endOf(board, from, b.hole), b];
}

/** Words that people have for supply and ground. */
const supplyWords = /^(vcc|vdd|v\+|\+5 ?v?|5v|\+|supply|plus)$/i;
const groundWords = /^(gnd|vss|0v|-|ground|minus)$/i;

/** The rails that a word means: those of a mark (`GND`), or of a name without a board (`bottom-`); null for other words. */
function railsMeant(board: Board, said: string): Hole[] | null {
  const short = /^(?:(left|right)-)?(top|bottom)[+-]$/i.test(said) ? said.toLowerCase() : null;
  const mark = supplyWords.test(said) ? '+' : groundWords.test(said) ? '-' : null;
  if (short === null && mark === null) return null;
  const all = board.breadboards.flatMap(({ id }) =>
    short === null ? railsOf(id).filter((rail) => markOf(rail.row) === mark) : (railNamed(`${id}.${short}`) ?? []),
  );
  const fed = mark === null ? [] : all.filter((rail) => isFedBy(board, rail, mark));
  return fed.length > 0 ? fed : all;
}

/** Whether a rail is joined to that lead of a supply. */
function isFedBy(board: Board, rail: Hole, mark: '+' | '-'): boolean {
  const { ofPin, ofStrip } = extractNets(board);
  const net = ofStrip.get(stripOf(rail));
  return (
    net !== undefined &&
    Object.values(board.parts).some((p) => typeOf(p)?.kind === 'supply' && ofPin.get(pinOf(p.ref, mark)) === net)
  );
}

/** Of several rails the one with the free hole nearest to a place. */
function nearestRail(board: Board, rails: readonly Hole[], near: Hole): Hole | undefined {
  const taken = unusableHoles(board);
  const [x, y] = [holeXY(near).x, holeXY(near).y];
  const away = (h: Hole): number => Math.hypot(holeXY(h).x - x, holeXY(h).y - y);
  return rails.flatMap((rail) => freeHoles(taken, rail, near).slice(0, 1)).sort((a, b) => away(a) - away(b))[0];
}

function endOf(board: Board, said: string, near: Hole | null): End | Finding {
  const rails = railsMeant(board, said);
  if (rails) {
    const rail = near ? nearestRail(board, rails, near) : rails[0];
    return rail ? { said, hole: rail, exact: false } : finding('hand/strip-full', [], { at: said });
  }
  const hole = parseHole(said.toLowerCase());
  const onBoard = (h: Hole): boolean => board.breadboards.some((b) => b.id === h.board);
  if (hole) return onBoard(hole) ? { said, hole, exact: true } : finding('hand/no-such-hole', [], { hole: said });
  const any = railNamed(said.toLowerCase());
  if (any) {
    return onBoard(any) ? { said, hole: any, exact: false } : finding('hand/no-such-hole', [], { hole: said });
  }
  if (/^b[shm]?\d+r?\./i.test(said)) return finding('hand/no-such-hole', [], { hole: said.slice(0, 20) });
  const pin = /^([A-Za-z]+\d+)\.([\w+-]+)$/.exec(said);
  if (!pin) return finding('hand/not-understood', [], { text: said.slice(0, 60) });
  return pinEnd(board, said, elementAt(pin, 1).toUpperCase(), elementAt(pin, 2).toUpperCase());
}

function pinEnd(board: Board, said: string, ref: string, id: string): End | Finding {
  const part = partOf(board, ref);
  if (!part) return noPart(ref);
  const leads = leadsOf(part);
  const lead = leads.find(({ type }) => type.id === id || type.name === id);
  if (!lead) {
    const pins = leads.map(({ type }) => type.id).join(', ');
    return finding('hand/no-such-pin', [{ kind: 'part', ref }], { ref, pin: id, pins });
  }
  if (!lead.hole) return finding('hand/lead-off-board', [], { ref, pin: id });
  return { said, hole: lead.hole, exact: false };
}
