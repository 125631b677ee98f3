import { launch } from './browser.ts'; import { Person } from './person.ts'; import { serve } from './server.ts';
const { base, child } = await serve(); const { browser, stop } = await launch();
const p = await Person.at(browser, base);
try { const { default: act } = await import(process.argv[2] as string); await act(p); } catch (e) { console.log(String(e)); await p.page.screenshot({path:'/tmp/fail.png'}); }
console.log('complaints', p.complaints); await stop(); child.kill(); process.exit(0);
