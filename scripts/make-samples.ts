/** Lays out every sheet of samples/ and writes the job beside it. */
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import {
  anySupplies,
  applyEdit,
  asInDrawer,
  drawerFromCsv,
  isError,
  layOut,
  newJob,
  type Packing,
  packJob,
  packWay,
  type Reading,
  says,
  stockOf,
  writeJobFile,
} from '@saddlebag/core';
import { highsSolver } from '@saddlebag/core/solver';

const names: Record<string, string> = {
  'lock-interlock': 'Lock interlock',
  'boat-tally': 'Boat tally',
  'towpath-lamp': 'Towpath lamp',
  'flood-watch': 'Flood watch',
  'level-dial': 'Level dial',
  'boat-counter': 'Boat counter',
  'keepers-vote': 'Keepers vote',
  'lamp-relay': 'Lamp relay',
  'gate-votes': 'Gate votes',
  'stile-lamps': 'Stile lamps',
};
/** Samples that are built from samples/drawer.csv. */
const fromDrawer = ['stile-lamps'];
const folder = new URL('../samples/', import.meta.url);
const solve = highsSolver();

async function made(id: string): Promise<string> {
  const job = newJob(names[id] ?? id, readFileSync(new URL(`${id}.sheet`, folder), 'utf8'));
  const { reading, packing: written } = await packJob(job, solve);
  const packing = fromDrawer.includes(id) ? await packedFromDrawer(reading) : written;
  const wrong = reading.findings.find(isError);
  if (wrong || !packing) throw new Error(`${id}: ${wrong ? says(wrong) : 'no packing'}`);
  const { edit } = layOut(packing);
  const applied = edit && applyEdit(job, edit);
  if (!applied?.ok) throw new Error(`${id}: not laid out`);
  return writeJobFile(applied.job);
}

async function packedFromDrawer({ design }: Reading): Promise<Packing | null> {
  const { entries } = drawerFromCsv(readFileSync(new URL('drawer.csv', folder), 'utf8'));
  const supplies = { ...anySupplies, drawer: stockOf(entries, 'HC') };
  const made = design.netlist && (await packWay(design.netlist, 'HC', 'drawer', supplies, solve));
  return made?.packing ? asInDrawer(made.packing, entries, 'HC') : null;
}

for (const file of readdirSync(folder).filter((f) => f.endsWith('.sheet'))) {
  const id = file.replace('.sheet', '');
  const at = new URL(`${id}.saddlebag.json`, folder);
  writeFileSync(at, await made(id));
  console.log(`samples/${id}.saddlebag.json`);
}
