/** Takes the pictures of docs/screenshots/ from the sample jobs, at 1280 by 800. */
import { join } from 'node:path';
import { launch } from './browser';
import { Person } from './person';
import { root, serve } from './server';

const { base, child } = await serve();
const { browser, stop } = await launch();
const picture = async (p: Person, name: string): Promise<void> => {
  await p.quiet();
  // Not in the moment in which what was done is being kept.
  await p.readsNot('keeping …');
  await p.page.screenshot({ path: join(root, 'docs/screenshots', `${name}.png`) });
  console.log(`docs/screenshots/${name}.png`);
};

const p = await Person.at(browser, base);
for (const sample of ['Flood watch', 'Towpath lamp', 'Boat tally', 'Lock interlock']) await p.takes(sample);
await p.sees('[aria-label="truth table"]');
await p.page.focus('[aria-label="truth table"]');
for (let i = 0; i < 12; i++) await p.keys('ArrowDown');
await p.keys('ArrowRight');
await picture(p, 'design');
await p.takes('False alarm');
await p.presses('Map');
await p.page.waitForFunction(() => document.querySelector('[data-gap="S"]') !== null);
await picture(p, 'map');
await p.takes('Boat counter');
await picture(p, 'states');
await p.takes('Keepers vote');
await picture(p, 'own-part');
await p.goes('/parts/74138');
await p.presses('Try this chip');
await p.reads('Compare with the sheet');
await p.page.focus('[data-cell="0 0"]');
for (const mark of '01111') await p.keys(mark);
await p.presses('Compare with the sheet');
await p.reads('wrong');
await picture(p, 'try');
await p.goes('/parts/7474?beside=74112');
await p.page.$eval('[aria-label="datasheet of 7474"] dl', (limits) => limits.scrollIntoView({ block: 'end' }));
await picture(p, 'datasheet');
await p.goes();
await p.presses('Open Lock interlock');
await p.sees('nav[aria-label=steps]');
await p.turnsTo('pack');
await (await p.sees('[role=button][aria-label$=" W"]')).click();
await p.presses('Pin here');
await picture(p, 'pack');
await p.keys('Control+z');
await p.goes();
await p.takes('Gate votes');
await p.turnsTo('pack');
await p.presses('Drawer');
for (const [part, count] of [
  ['74HC00', '6'],
  ['74HC02', '4'],
  ['74HC86', '2'],
  ['74HC10', '3'],
  ['74LS00', '12'],
] as const) {
  await p.page.focus('[aria-label="part number"]');
  await p.types(part);
  await p.page.click('[aria-label="how many"]', { count: 3 });
  await p.types(count);
  await p.keys('Enter');
  await p.named(`how many ${part}`);
}
await picture(p, 'drawer');
await p.presses('Done');
for (const way of ['Spare units used', 'Fewest chips', 'NANDs alone']) {
  await p.presses(`Find ${way}`);
  await p.page.waitForSelector(`::-p-aria(Look at ${way})`, { timeout: 180_000 });
}
await p.presses('Look at Fewest chips');
await picture(p, 'ways');
await p.presses('Saddlebag, to the shelf');
await p.presses('Open Lock interlock');
await p.sees('nav[aria-label=steps]');
await p.turnsTo('board');
await p.page.click('[data-ref=U1]:not([data-away] *)');
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

await p.takes('Apprentice bench');
await p.turnsTo('inspect');
await picture(p, 'inspect');
await p.takes('Towpath lamp');
await p.turnsTo('board');
await p.presses('Clear');
await p.page.waitForFunction(() =>
  [...document.querySelectorAll('button')].some((b) => b.innerText.startsWith('Guide me wire') && !b.disabled),
);
await p.presses('Guide me wire by wire');
await (await p.sees('[role=application]')).focus();
for (let n = 0; n < 36; n++) {
  const before = await p.text('[aria-label="what to do next"]');
  await p.keys('Enter');
  await p.page.waitForFunction(
    (text) => (document.querySelector('[aria-label="what to do next"]') as HTMLElement).innerText !== text,
    {},
    before,
  );
}
await p.page.mouse.move(640, 140);
await picture(p, 'guided');
await p.goes();
await p.presses('Open Flood watch');
await p.turnsTo('board');
await picture(p, 'crowded');
await p.takes('Fog beacon');
await p.turnsTo('power');
await p.presses('Dim');
await p.keys('Space');
// Until the count is well under way, and the lamps differ.
await p.page.waitForFunction(
  () => /^[89]\.\d/.test(document.querySelector('[aria-label="time since power up"]')?.textContent ?? ''),
  { timeout: 30_000 },
);
await p.keys(',');
// The two slower lamps as a number, and two marks, a period of the first lamp apart.
await p.presses('Number');
for (const row of ['Q3', 'Q2']) await p.page.click(`[data-row="${row}"] button`);
await p.presses('Done');
await p.page.focus('[aria-label^="Q0: arrows"]');
await p.keys('ArrowLeft', 'Shift+ArrowLeft', 'Shift+ArrowLeft', 'Shift+ArrowLeft');
await p.reads('A to B');
await picture(p, 'trace');

// On paper, and in the hand, by day.
await p.presses('Dim');
await p.page.setViewport({ width: 1280, height: 800 });
await p.goes();
await p.presses('Open Lock interlock');
await p.sees('nav[aria-label=steps]');
await p.turnsTo('card');
await p.sees('[aria-label=stages]');
await p.page.evaluate(() => window.dispatchEvent(new Event('beforeprint')));
await p.page.emulateMediaType('print');
await p.page.setViewport({ width: 720, height: 1018 });
await picture(p, 'paper');
await p.page.emulateMediaType('screen');
await p.page.evaluate(() => window.dispatchEvent(new Event('afterprint')));
await p.page.setViewport({ width: 390, height: 844, hasTouch: true });
await p.page.waitForSelector('nav[aria-label=steps] > button', { visible: true });
await p.page.tap('nav[aria-label=steps] > button');
await p.page.waitForSelector('nav a[href$="/power"]', { visible: true });
await p.page.tap('nav a[href$="/power"]');
await p.sees('main[data-step=power]');
await p.presses('Power on');
await p.page.tap('main [aria-label=panels] button:last-child:not([data-away] *)');
await p.page.waitForSelector('main [role=switch][aria-label^="K"]:not([data-away] *)', { visible: true });
for (const name of ['K', 'E']) await p.page.tap(`main [role=switch][aria-label^="${name}"]:not([data-away] *)`);
await p.sees('[role=img][aria-label^="G lit"]');
await picture(p, 'phone');
await stop();
child.kill();
