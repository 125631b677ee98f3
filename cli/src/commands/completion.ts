import type { Command } from 'commander';
import { WrongUse } from '../files';
import type { OwnCommand } from '../output';

const shells = ['bash', 'zsh', 'fish'] as const;
type Shell = (typeof shells)[number];

/** What a shell completes: a command with what it is for, its options, and whether it reads files. */
interface Completed {
  readonly name: string;
  readonly says: string;
  readonly options: readonly { readonly flag: string; readonly says: string }[];
}

/** Prints what makes a shell complete the commands, their options and files. */
export const completion: OwnCommand = {
  add: (program, output, done) =>
    program
      .command('completion')
      .description(`print what makes a shell complete this command line: ${shells.join(', ')}`)
      .argument('<SHELL>')
      .addHelpText(
        'after',
        '\nbash:  source <(saddlebag completion bash)\nzsh:   source <(saddlebag completion zsh)\nfish:  saddlebag completion fish | source',
      )
      .action((name: string) => {
        const shell = shells.find((one) => one === name);
        if (!shell) throw new WrongUse(`${name} is not known; there are ${shells.join(', ')}`);
        output.out(scriptFor(shell, program.commands.map(completed)));
        done(0);
      }),
};

function completed(command: Command): Completed {
  const options = command.options.flatMap(({ long, description }) => (long ? [{ flag: long, says: description }] : []));
  return { name: command.name(), says: command.description(), options: [...options, { flag: '--help', says: 'help' }] };
}

function scriptFor(shell: Shell, commands: readonly Completed[]): string {
  if (shell === 'fish') return fish(commands);
  // zsh takes what bash does.
  const first = shell === 'zsh' ? 'autoload -U +X bashcompinit && bashcompinit\n' : '';
  return `${first}${bash(commands)}`;
}

function bash(commands: readonly Completed[]): string {
  const cases = commands.map(
    ({ name, options }) => `    ${name}) options="${options.map((o) => o.flag).join(' ')}" ;;`,
  );
  return `_saddlebag() {
  local word="\${COMP_WORDS[COMP_CWORD]}" options=""
  if [ "$COMP_CWORD" -eq 1 ]; then
    COMPREPLY=($(compgen -W "${commands.map((c) => c.name).join(' ')} --help --version" -- "$word"))
    return
  fi
  case "\${COMP_WORDS[1]}" in
${cases.join('\n')}
  esac
  case "$word" in
    -*) COMPREPLY=($(compgen -W "$options" -- "$word")) ;;
    *) COMPREPLY=($(compgen -f -- "$word")) ;;
  esac
}
complete -o filenames -F _saddlebag saddlebag
`;
}

function fish(commands: readonly Completed[]): string {
  const quoted = (text: string): string => `'${text.replace(/\\/g, '\\\\').replace(/'/g, "\\'")}'`;
  return `${commands
    .flatMap(({ name, says, options }) => [
      `complete -c saddlebag -n __fish_use_subcommand -f -a ${name} -d ${quoted(says)}`,
      ...options.map(
        ({ flag, says: what }) =>
          `complete -c saddlebag -n '__fish_seen_subcommand_from ${name}' -l ${flag.slice(2)} -d ${quoted(what)}`,
      ),
    ])
    .join('\n')}\n`;
}
