import type { Amendments } from '../../../core/amend/types.ts';
import type { ProjectView } from '../../../server/projects.ts';
import { api, Refusal } from '../api.ts';
import { oneAtATime } from '../one-at-a-time.ts';
import type { Bench } from './bench.ts';
import { isAboutReading, keeping } from './history.ts';
import { telling } from './notices.ts';
import { comesBack, Retry } from './retry.ts';

type Amended = ProjectView['amended'];

/** Saves a person's corrections as they stand; where somebody else was faster, theirs are shown and the steps forgotten. */
export class AmendmentSaver {
  private readonly retry = new Retry(() => void this.save());
  readonly save = oneAtATime(() => this.saveNow());

  constructor(private readonly bench: Bench) {}

  /** The open project gets other corrections. */
  change(amendments: Amendments): void {
    const { project } = this.bench.get();
    if (!project) return;
    this.bench.set({ project: { ...project, amended: { ...project.amended, amendments } } });
    void this.save();
  }

  private async saveNow(): Promise<void> {
    this.retry.stop();
    const { bench } = this;
    const { project } = bench.get();
    if (!project) return;
    bench.set({ savingAmendments: 'saving' });
    try {
      const { version } = await api.saveAmendments(project.id, project.amended);
      this.put(project.id, (mine) => ({ ...mine, version }));
      bench.set({ savingAmendments: 'saved' });
    } catch (error) {
      if (error instanceof Refusal && error.status === 409) {
        this.put(project.id, () => error.current as Amended);
        const history = keeping(bench.get(), (step) => !isAboutReading(step));
        bench.set({ savingAmendments: 'saved', ...history, ...telling(bench.get(), error.detail) });
        return;
      }
      bench.set({ savingAmendments: 'failed' });
      if (!comesBack(error)) return;
      if (!bench.get().troubled)
        bench.set({ troubled: true, ...telling(bench.get(), `${error.title}. ${error.detail}`, { stays: false }) });
      this.retry.later();
    }
  }

  private put(projectId: string, next: (mine: Amended) => Amended): void {
    const { project } = this.bench.get();
    if (project?.id === projectId) this.bench.set({ project: { ...project, amended: next(project.amended) } });
  }
}
