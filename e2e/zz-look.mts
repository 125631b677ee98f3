import { launch } from './browser.ts';
import { Person } from './person.ts';
import { serve } from './server.ts';
const { base, child } = await serve();
const { browser, stop } = await launch();
const p = await Person.at(browser, base);
const wait = (ms: number) => new Promise((r) => setTimeout(r, ms));
const shot = async (n: string) => { await p.quiet(); await wait(300); await p.page.screenshot({ path: `/tmp/${n}.png` }); };
try { await p.goes(); await p.presses('Take Lock interlock'); await wait(1500);
  await p.presses('and gate P'); await p.page.select('[aria-label="kind of gate"]', 'nand'); await wait(500);
  await p.presses('Map'); await p.page.select('[aria-label="signal on the map"]', 'P'); await p.presses('Groups of zeros'); await shot('l1');
  await p.goes('/parts/74161'); await shot('l2');
  await p.goes('/parts/push-button'); await shot('l3');
 } catch (e) { console.log(String(e)); await p.page.screenshot({ path: `/tmp/lerr.png` });}
console.log(p.complaints, await p.axe());
await stop(); child.kill();
