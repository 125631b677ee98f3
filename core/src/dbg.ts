import { writeFileSync } from 'node:fs';
import { applyEdit, newJob, readCommand, writeJobFile } from './index';
const start = ['seat supply b1.top+3', 'b1.top-61 > b1.bottom-61', 'b1.top+60 > b1.bottom+60',
 'seat 555 b1.e20','U1.8 > b1.top+','U1.4 > b1.top+','U1.1 > b1.bottom-','U1.2 > U1.6',
];
let job = newJob('x');
for (const t of process.argv.slice(3)) {
  const c = readCommand(job.board, t); if (!c.ok) { console.log(t, JSON.stringify(c)); process.exit(1); }
  const a = applyEdit(job, c.edit); if (!a.ok) { console.log(t, JSON.stringify(a)); process.exit(1); }
  job = a.job;
}
writeFileSync(process.argv[2]!, writeJobFile(job));
