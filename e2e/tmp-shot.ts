import { launch } from './browser';
import { Person } from './person';
import { serve } from './server';
const { base, child } = await serve();
const { browser, stop } = await launch();
try {
  const p = await Person.at(browser, base);
  p.page.on('console', (m) => console.log('console', m.text()));
  await p.goes();
  await p.presses('New job');
  await p.sees('.cm-content');
  await p.page.click('.cm-content');
  await p.types('in  S "which pump"  A "weir pump"  B "lock pump"  D\nout Y\nY = S & A & D | ~S & B');
  await p.presses('Map');
  await new Promise((d) => setTimeout(d, 2500));
  await p.page.screenshot({ path: '/tmp/s1.png' });
} finally { await stop(); child.kill(); }
