import { Command, CommanderError } from 'commander';
import { card } from './commands/card';
import { completion } from './commands/completion';
import { diff } from './commands/diff';
import { family } from './commands/family';
import { guide } from './commands/guide';
import { hazards } from './commands/hazards';
import { inspectBoard } from './commands/inspect';
import { match } from './commands/match';
import { measureBoard } from './commands/measure';
import { memory } from './commands/memory';
import { pack } from './commands/pack';
import { part } from './commands/part';
import { picture } from './commands/picture';
import { plan } from './commands/plan';
import { recoverSheet } from './commands/recover';
import { resistors } from './commands/resistors';
import { restateCommand } from './commands/restate';
import { runTime } from './commands/run';
import { same } from './commands/same';
import { schema } from './commands/schema';
import { sheet } from './commands/sheet';
import { states } from './commands/states';
import { table } from './commands/table';
import { timers } from './commands/timers';
import { tour } from './commands/tour';
import { verilog } from './commands/verilog';
import { walk } from './commands/walk';
import { checkTarget, WrongUse } from './files';
import type { Output } from './output';
import { forEachFile } from './several';

/** Exit codes of the command line itself; commands give 1 when there are findings. */
const OK = 0;
const WRONG_USE = 2;

/** No message is longer than this, in characters. */
const MOST = 4000;
const clipped = (text: string): string => (text.length <= MOST ? text : `${text.slice(0, MOST - 2)}…\n`);

/**
 * Runs the command line with its arguments and returns the exit code. Nothing is written but through
 * `output`, so that tests see what a person sees.
 */
export async function run(args: readonly string[], given: Output): Promise<number> {
  const output: Output = { ...given, err: (text) => given.err(clipped(text)) };
  let code = OK;
  const program = new Command('saddlebag')
    .description('From a gate-level design to 74-series chips on a breadboard, checked and powered up.')
    .version('0.1.0')
    .exitOverride()
    .configureOutput({ writeOut: output.out, writeErr: output.err })
    .showHelpAfterError('(saddlebag --help lists the commands)')
    .addHelpText(
      'after',
      '\nFILE is a sheet (.sheet), a job (.saddlebag.json), structural Verilog (.v) or a table (.csv); - is standard input.\nExit code 0: all is well; 1: findings; 2: wrong use.',
    );
  for (const { name, describe, act, writes } of [
    table,
    guide,
    inspectBoard,
    match,
    recoverSheet,
    card,
    sheet,
    verilog,
  ]) {
    const command = program.command(name).description(describe).argument('<FILES...>');
    command.option('--json', 'print JSON for a program to read');
    if (writes) command.option('-o, --output <FILE>', `write ${writes.what} to a file (${writes.endings.join(', ')})`);
    command.action(async (files: string[], options: { json?: boolean; output?: string }) => {
      if (options.output !== undefined && writes)
        checkTarget(options.output, { endings: writes.endings, inputs: files });
      const asked = { json: options.json === true, to: options.output };
      code = await forEachFile(files, asked, output, (file, own) => act(file, asked, own));
    });
  }
  for (const { add } of [
    walk,
    measureBoard,
    runTime,
    pack,
    plan,
    picture,
    part,
    same,
    restateCommand,
    states,
    tour,
    hazards,
    timers,
    resistors,
    family,
    memory,
    diff,
  ]) {
    const command = add(program, output, (c) => {
      code = c;
    });
    command.option('--json', 'print JSON for a program to read');
  }
  for (const { add } of [completion, schema])
    add(program, output, (c) => {
      code = c;
    });
  try {
    await program.parseAsync([...args], { from: 'user' });
  } catch (e) {
    if (e instanceof CommanderError) return e.exitCode === 0 ? OK : WRONG_USE;
    if (!(e instanceof WrongUse)) throw e;
    output.err(`saddlebag: ${e.message}.\n`);
    return WRONG_USE;
  }
  return code;
}
