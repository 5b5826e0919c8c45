// Asks the registry for known weaknesses of the packages that ship; fails on severe ones. A registry that answers no such
// questions is told, and no failure.
import { spawnSync } from 'node:child_process';

const { stdout } = spawnSync('npm', ['audit', '--omit=dev', '--json'], { encoding: 'utf8', timeout: 60_000 });
let counts = null;
try {
  counts = JSON.parse(stdout).metadata?.vulnerabilities ?? null;
} catch {
  // No answer that could be read.
}
if (counts === null) console.log('the registry answers no audits; skipped');
else if (counts.high + counts.critical > 0) {
  console.error(`${counts.high} high and ${counts.critical} critical weaknesses; see: npm audit --omit=dev`);
  process.exitCode = 1;
} else console.log('none of high or critical severity');
