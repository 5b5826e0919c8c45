import { NO_AMENDMENTS } from '../core/amend/types.ts';
import { readSource } from '../reader/read-source.ts';
import { StoreTrouble } from '../store/trouble.ts';
import { dataFolder, sampleFolder, store } from './context.ts';
import { addProject, allProjects } from './projects.ts';
import { SAMPLE_ID } from './sample.ts';
import { clearUploads } from './uploads.ts';

// The server itself may be taking one in when it asks for the sample.
if (process.argv[2] !== 'beside the server') clearUploads();

/** Reads the sample into the database when it isn't there yet. */
function seed(): void {
  const open = store();
  if (allProjects(open).some((p) => p.id === SAMPLE_ID)) {
    console.log(`database: ready in ${dataFolder()}`);
  } else {
    const { snapshot, texts, sources, ms } = readSource(sampleFolder());
    const amendments = { ...NO_AMENDMENTS, confirmed: true };
    addProject(open, snapshot, [], { texts, sources, folder: sampleFolder(), id: SAMPLE_ID, amendments });
    console.log(`database: sample of ${snapshot.modules.length} modules read in ${Math.round(ms)} ms`);
  }
  open.close();
}

try {
  seed();
} catch (error) {
  if (!(error instanceof StoreTrouble)) throw error;
  // The server comes up all the same: its page says what can be done.
  console.error(`database: ${error.found} The page says what can be done.`);
}
