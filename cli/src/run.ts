import { Command, CommanderError } from 'commander';
import { card } from './commands/card';
import { inspectBoard } from './commands/inspect';
import { lead } from './commands/lead';
import { match } from './commands/match';
import { pack } from './commands/pack';
import { part } from './commands/part';
import { picture } from './commands/picture';
import { plan } from './commands/plan';
import { recoverSheet } from './commands/recover';
import { restateCommand } from './commands/restate';
import { same } from './commands/same';
import { sheet } from './commands/sheet';
import { table } from './commands/table';
import { verilog } from './commands/verilog';
import { walk } from './commands/walk';
import type { Output } from './output';

/** Exit codes of the command line itself; commands give 1 when there are findings. */
const OK = 0;
const WRONG_USE = 2;

/**
 * Runs the command line with its arguments and returns the exit code. Nothing is written but through
 * `output`, so that tests see what a person sees.
 */
export async function run(args: readonly string[], output: Output): Promise<number> {
  let code = OK;
  const program = new Command('saddlebag')
    .description('From a gate-level design to 74-series chips on a breadboard, checked and powered up.')
    .version('0.1.0')
    .exitOverride()
    .configureOutput({ writeOut: output.out, writeErr: output.err })
    .showHelpAfterError('(saddlebag --help lists the commands)')
    .addHelpText(
      'after',
      '\nFILE is a sheet (.sheet), a job (.saddlebag.json), structural Verilog (.v) or a table (.csv).\nExit code 0: all is well; 1: findings; 2: wrong use.',
    );
  for (const { name, describe, act, writes } of [
    table,
    lead,
    inspectBoard,
    match,
    recoverSheet,
    walk,
    card,
    sheet,
    verilog,
  ]) {
    const command = program.command(name).description(describe).argument('<FILE>');
    command.option('--json', 'print JSON for a program to read');
    if (writes) command.option('-o, --output <FILE>', `write ${writes} to a file`);
    command.action(async (file: string, options: { json?: boolean; output?: string }) => {
      code = await act(file, { json: options.json === true, to: options.output }, output);
    });
  }
  for (const { add } of [pack, plan, picture, part, same, restateCommand]) {
    const command = add(program, output, (c) => {
      code = c;
    });
    command.option('--json', 'print JSON for a program to read');
  }
  try {
    await program.parseAsync([...args], { from: 'user' });
  } catch (e) {
    if (!(e instanceof CommanderError)) throw e;
    return e.exitCode === 0 ? OK : WRONG_USE;
  }
  return code;
}
