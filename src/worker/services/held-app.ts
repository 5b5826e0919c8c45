import { amend } from '../../core/amend/amend.ts';
import { type Amendments, NO_AMENDMENTS } from '../../core/amend/types.ts';
import { InputError } from '../../core/errors.ts';
import { type Plan } from '../../core/plan/types.ts';
import { shipped } from '../../core/ship/shipped.ts';
import { complete } from '../../core/snapshot/complete.ts';
import type { Snapshot } from '../../core/snapshot/types.ts';
import type { AppView } from '../views.ts';

/** The app that an analyst holds: as it was read, and with the person's corrections laid over it. */
export class HeldApp {
  private read: Snapshot | null = null;
  private snapshot: Snapshot | null = null;
  private amendments: Amendments = NO_AMENDMENTS;
  private readonly listeners: (() => void)[] = [];
  /** The same app as it was: when it was opened, and before the reading that came last. */
  private earlier: { opened: Snapshot; last: Snapshot } | null = null;

  /** Calls back whenever another app, or the same with other corrections, is held: what is known of the one before is void. */
  onChange(then: () => void): void {
    this.listeners.push(then);
  }

  /** Holds another app; tells what is in it. */
  take(snapshot: Snapshot): AppView {
    this.read = complete(snapshot);
    this.earlier = null;
    return this.amend(NO_AMENDMENTS);
  }

  /** Holds the same app as it was read anew; what it was before is kept, to be compared with. */
  takeAnew(snapshot: Snapshot, amendments: Amendments): AppView {
    const last = this.get();
    this.earlier = { opened: this.earlier?.opened ?? last, last };
    this.read = complete(snapshot);
    return this.amend(amendments);
  }

  /** The app as it was then, with the corrections of that time; null where it wasn’t read anew since it was opened. */
  before(since: 'last save' | 'opened'): Snapshot | null {
    return this.earlier && (since === 'opened' ? this.earlier.opened : this.earlier.last);
  }

  /** Another reading of the same app, with the present corrections laid over it. */
  amended(snapshot: Snapshot): Snapshot {
    return amend(complete(snapshot), this.amendments).snapshot;
  }

  /** Lays a person's corrections over what was read, in place of earlier ones. */
  amend(amendments: Amendments): AppView {
    if (!this.read) throw new InputError('No project open', 'Open a project first.');
    this.amendments = amendments;
    const { snapshot, stale, unproposed } = amend(this.read, amendments);
    this.snapshot = snapshot;
    for (const then of this.listeners) then();
    const { name, origin, modules, imports, routes, base, unresolved, failed, output, entries, scripts } = snapshot;
    return {
      name,
      origin,
      modules: modules.length,
      routes,
      realms: entries.filter((e) => e.kind === 'document').map((e) => e.realm),
      base,
      splittable: output === null || output.files.some((f) => f.inside === 'sources'),
      imports: imports.length + unresolved.length,
      lost: unresolved.filter((u) => !u.leftOut).length,
      // A script of unknown size is told by itself.
      failed: failed.filter((f) => !snapshot.scripts.some((s) => s.bytes === null && f.message.includes(s.address)))
        .length,
      missing: snapshot.notices.filter((n) => n.kind === 'missing package').map((n) => n.path),
      workspace: snapshot.notices.find((n) => n.kind === 'outside')?.path ?? null,
      unknownSizes: scripts.filter((s) => s.bytes === null).map((s) => s.name),
      stale,
      unproposed,
    };
  }

  /** The app as corrected. Throws InputError while none is held. */
  get(): Snapshot {
    if (!this.snapshot) throw new InputError('No project open', 'Open a project first.');
    return this.snapshot;
  }

  /** The app as a plan ships it. */
  shipped(plan: Plan): Snapshot {
    return shipped(this.get(), plan).snapshot;
  }
}
