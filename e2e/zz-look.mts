import { launch } from './browser.ts';
import { Person } from './person.ts';
import { serve } from './server.ts';
const { base, child } = await serve();
const { browser, stop } = await launch();
const p = await Person.at(browser, base);
console.log(Object.getOwnPropertyNames(Object.getPrototypeOf(p)).join(' '));
await stop(); child.kill();
