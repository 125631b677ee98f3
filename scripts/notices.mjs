// Writes THIRD-PARTY-NOTICES.md from the lock file: every package that ships, with its version, licence and where its text lies.
// `--check` writes nothing and fails where the file does not fit the lock file.
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = dirname(dirname(fileURLToPath(import.meta.url)));
const target = join(root, 'THIRD-PARTY-NOTICES.md');
const { packages } = JSON.parse(readFileSync(join(root, 'package-lock.json'), 'utf8'));

/** What the lock file leaves out is read from the package itself. */
function licenceOf(path, entry) {
  if (entry.license) return entry.license;
  const own = join(root, path, 'package.json');
  return (existsSync(own) && JSON.parse(readFileSync(own, 'utf8')).license) || 'see its own notice';
}

const shipped = Object.entries(packages)
  .filter(([path, e]) => path.includes('node_modules/') && !e.dev && !e.link && !e.optional)
  .map(([path, e]) => ({
    name: path.slice(path.lastIndexOf('node_modules/') + 13),
    version: e.version,
    licence: licenceOf(path, e),
  }));
const unique = [...new Map(shipped.map((p) => [`${p.name}@${p.version}`, p])).values()].sort((a, b) =>
  a.name < b.name ? -1 : a.name > b.name ? 1 : 0,
);
const byLicence = Map.groupBy
  ? Map.groupBy(unique, (p) => p.licence)
  : new Map([...new Set(unique.map((p) => p.licence))].map((l) => [l, unique.filter((p) => p.licence === l)]));

const text = [
  '# Third-party notices',
  '',
  'Saddlebag itself is under the MIT licence (LICENSE). It ships with the packages below, each under its own licence, whose text',
  'lies in the package. This file is made from the lock file by `node scripts/notices.mjs`; `npm run lint` holds it to that.',
  '',
  'Of those that are not permissive: elkjs (EPL-2.0) runs unchanged in a worker of its own; resvg (MPL-2.0) is used unchanged by the',
  'command line for pictures; the typefaces (OFL-1.1) are served as they come.',
  ...[...byLicence.keys()]
    .sort()
    .flatMap((licence) => ['', `## ${licence}`, '', ...byLicence.get(licence).map((p) => `- ${p.name} ${p.version}`)]),
  '',
].join('\n');

if (unique.length < 20) {
  console.error('notices: the lock file names too few packages to be right');
  process.exit(1);
}
if (!process.argv.includes('--check')) writeFileSync(target, text);
else if (!existsSync(target) || readFileSync(target, 'utf8') !== text) {
  console.error('notices: THIRD-PARTY-NOTICES.md does not fit package-lock.json; run node scripts/notices.mjs');
  process.exit(1);
}
