/** Takes the pictures of docs/screenshots/ from the sample jobs, at 1280 by 800. */
import { join } from 'node:path';
import { launch } from './browser';
import { Person } from './person';
import { root, serve } from './server';

const { base, child } = await serve();
const { browser, stop } = await launch();
const picture = async (p: Person, name: string): Promise<void> => {
  await p.quiet();
  await p.page.screenshot({ path: join(root, 'docs/screenshots', `${name}.png`) });
  console.log(`docs/screenshots/${name}.png`);
};

const p = await Person.at(browser, base);
for (const sample of ['Flood watch', 'Towpath lamp', 'Boat tally', 'Lock interlock']) await p.takes(sample);
await picture(p, 'design');
await p.turnsTo('pack');
await picture(p, 'pack');
await p.turnsTo('board');
await p.page.click('[data-ref=U1]');
await picture(p, 'board');
await p.turnsTo('power');
await p.keys('w');
await p.reads('all agree');
await p.keys('k', 'e');
await picture(p, 'power');
await p.turnsTo('card');
for (let i = 0; i < 6; i++) await p.keys('ArrowDown');
await picture(p, 'card');
await p.goes();
await picture(p, 'shelf');

await p.presses('Open Boat tally');
await p.turnsTo('board');
await p.tellsBoard('pull w12');
await p.tellsBoard('turn D2');
await p.turnsTo('inspect');
await picture(p, 'inspect');
await p.presses('Saddlebag, to the shelf');
await p.presses('Open Flood watch');
await p.turnsTo('power');
await p.presses('Dim');
await p.keys('w');
await p.reads('1024 of 1024 rows seen');
await picture(p, 'power-dim');

await stop();
child.kill();
