import { showsColours } from './colours';
import { run } from './run';

// Who reads along may have seen enough, as `head` has: that is no fault.
process.stdout.on('error', (e: NodeJS.ErrnoException) => process.exit(e.code === 'EPIPE' ? 0 : 1));

process.exitCode = await run(process.argv.slice(2), {
  out: (text) => process.stdout.write(text),
  err: (text) => process.stderr.write(text),
  hasColours: showsColours(process.stderr.isTTY === true, process.env),
});
