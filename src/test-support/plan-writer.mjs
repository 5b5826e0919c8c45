// Changes a plan again and again, and tells each change once it is confirmed. Killed by the test that starts it.

import fs from 'node:fs';
import { openStore } from '../../dist/store/database.js';
import { findPlan, updatePlan } from '../../dist/store/plans.js';

const [file, migrations, id] = process.argv.slice(2);
const store = openStore(file, migrations);
for (;;) {
  const plan = findPlan(store, id);
  const next = { ...plan, version: plan.version + 1, description: 'x'.repeat(plan.version % 5000) };
  // Not by process.stdout: what it holds back is gone with the process.
  if (updatePlan(store, next, plan.version)) fs.writeSync(1, `${next.version}\n`);
}
