import { NO_AMENDMENTS } from '../core/amend/types.ts';
import { readSource } from '../reader/read-source.ts';
import { dataFolder, sampleFolder, store } from './context.ts';
import { addProject, allProjects } from './projects.ts';
import { SAMPLE_ID } from './sample.ts';
import { clearUploads } from './uploads.ts';

clearUploads();

/** Reads the sample into the database when it isn't there yet. */
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
