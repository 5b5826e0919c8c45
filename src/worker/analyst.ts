import type { Amendments } from '../core/amend/types.ts';
import { DEFAULT_CONDITIONS } from '../core/sim/conditions.ts';
import type { Snapshot } from '../core/snapshot/types.ts';
import { AdviceService } from './services/advice.ts';
import { ChangesService } from './services/changes.ts';
import { CompareService } from './services/compare.ts';
import { HandoffService } from './services/handoff.ts';
import { HeldApp } from './services/held-app.ts';
import { InventoryService } from './services/inventory.ts';
import { LoadSheetService } from './services/load-sheet.ts';
import { MixService } from './services/mix.ts';
import { Predictions } from './services/predictions.ts';
import { RehearsedService } from './services/rehearsed.ts';
import { SplitService } from './services/split.ts';
import { StartupService } from './services/startup.ts';
import { VisitService } from './services/visits.ts';
import type { AppView } from './views.ts';

/** What was fetched: there may be a newer snapshot than the one that somebody was told of. */
interface Opened {
  app: AppView;
  snapshotId: string;
}

/** The computations behind the workbench, on a thread of their own: a service for each station, over one app. */
export class Analyst {
  private readonly app = new HeldApp();
  private readonly predictions = new Predictions(this.app);
  private readonly mixes = new MixService(
    (plan, route) => this.predictions.predicted(plan, route, DEFAULT_CONDITIONS).program,
  );
  readonly inventory = new InventoryService(this.app);
  readonly split = new SplitService(this.app, this.predictions);
  readonly loadSheet = new LoadSheetService(this.app);
  readonly startup = new StartupService(this.app, this.predictions, this.mixes);
  readonly rehearsed = new RehearsedService(this.app, this.predictions);
  readonly visits = new VisitService(this.app);
  readonly advice = new AdviceService(this.app);
  readonly compare = new CompareService(this.app, this.mixes);
  readonly handoff = new HandoffService(this.app, this.predictions);
  readonly changes = new ChangesService(this.app);

  /** Fetches a project's newest snapshot; tells what is in it, and which one it is. */
  async open(address: string): Promise<Opened> {
    const { snapshot, snapshotId } = await fetched(address);
    return { app: this.take(snapshot), snapshotId };
  }

  /** The same of the project that is open, which can be compared with what it was. */
  async openAnew(address: string, amendments: Amendments): Promise<Opened> {
    const { snapshot, snapshotId } = await fetched(address);
    return { app: this.app.takeAnew(snapshot, amendments), snapshotId };
  }

  take(snapshot: Snapshot): AppView {
    return this.app.take(snapshot);
  }

  /** Lays a person's corrections over what was read, in place of earlier ones. */
  amend(amendments: Amendments): AppView {
    return this.app.amend(amendments);
  }
}

async function fetched(address: string): Promise<{ snapshot: Snapshot; snapshotId: string }> {
  const answer = await fetch(address, { headers: { accept: 'application/gzip' } });
  if (!answer.ok || !answer.body) throw new Error(`the snapshot couldn't be loaded (${answer.status})`);
  // The server sends it as it is stored.
  const snapshot = await new Response(answer.body.pipeThrough(new DecompressionStream('gzip'))).json();
  return { snapshot: snapshot as Snapshot, snapshotId: answer.headers.get('x-snapshot') ?? '' };
}
