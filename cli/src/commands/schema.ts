import schemas from '../../../docs/cli-json.schema.json';
import { WrongUse } from '../files';
import { json, type OwnCommand } from '../output';

const { $schema, $defs } = schemas;
const shapes: Readonly<Record<string, object>> = $defs;

/** Prints what a command prints with `--json`, as JSON Schema. */
export const schema: OwnCommand = {
  add: (program, output, done) =>
    program
      .command('schema')
      .description('print the shape of what a command prints with --json, as JSON Schema (2020-12)')
      .argument('[COMMAND]', 'left out: the shapes of all commands')
      .action((name?: string) => {
        if (name !== undefined && (!Object.hasOwn(shapes, name) || name === 'finding'))
          throw new WrongUse(`${name} prints no JSON of its own`);
        output.out(
          json(name === undefined ? schemas : { $schema, ...shapes[name], $defs: { finding: $defs.finding } }),
        );
        done(0);
      }),
};
