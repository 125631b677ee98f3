// Refuses exports without a docstring, and names on core's public face that no face uses.
import { readdirSync, readFileSync } from 'node:fs';

const sourcesIn = (...folders) =>
  folders.flatMap((folder) =>
    readdirSync(folder, { recursive: true })
      .map((name) => `${folder}/${name}`)
      .filter((path) => /\.tsx?$/.test(path)),
  );

/** Exports of a module that no docstring stands over, as `path:line`. Decorators may stand between the two. */
function undocumented(path) {
  const lines = readFileSync(path, 'utf8').split('\n');
  return lines.flatMap((line, i) => {
    if (!/^export (async |abstract |default )*(const|function|class|interface|type|enum)\b(?! \{)/.test(line))
      return [];
    let above = i - 1;
    while (lines[above]?.startsWith('@')) above--;
    return lines[above]?.endsWith('*/') ? [] : [`${path}:${i + 1}`];
  });
}

const named = (list) =>
  list.split(',').flatMap((one) => /^(?:type )?(\w+)/.exec(one.trim().replace(/^\/\/.*/, ''))?.[1] ?? []);

/** Names on the public face that are imported nowhere outside of core. */
function unused() {
  const face = readFileSync('core/src/index.ts', 'utf8');
  const offered = [...face.matchAll(/export \{([^}]*)\}/g)].flatMap((m) => named(m[1]));
  const used = new Set(
    sourcesIn('web/src', 'cli/src', 'server/src', 'bench', 'e2e', 'scripts').flatMap((path) =>
      [
        ...readFileSync(path, 'utf8').matchAll(/(?:import|export)(?: type)? \{([^}]*)\} from '@saddlebag\/core'/g),
      ].flatMap((m) => named(m[1])),
    ),
  );
  if (offered.length === 0 || used.size === 0) throw new Error('Nothing was read of the public face.');
  return offered.filter((name) => !used.has(name));
}

const modules = sourcesIn('core/src', 'web/src', 'cli/src', 'server/src').filter((path) => !/\.test\.tsx?$/.test(path));
const [bare, idle] = [modules.flatMap(undocumented), unused()];
for (const place of bare) console.error(`${place}: an export without a docstring`);
for (const name of idle) console.error(`core/src/index.ts: nothing outside of core imports ${name}`);
console.log(`exports: ${modules.length} modules, ${bare.length} undocumented, ${idle.length} idle on core's face`);
process.exit(bare.length + idle.length > 0 ? 1 : 0);
