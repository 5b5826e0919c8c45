import type { Command } from 'commander';
import { amend, rebuiltRoutes } from '../core/amend/amend.ts';
import { AppState, landingChanges } from '../core/check/landing-changes.ts';
import { alikeLandings, landingLines } from '../core/check/landing-words.ts';
import { lostImports, lostWords } from '../core/check/lost-imports.ts';
import { PLANS_FILE_NAME } from '../core/formats/plans-file.ts';
import { limitStates } from '../core/limits/limits.ts';
import type { LimitState } from '../core/limits/types.ts';
import { amountWords, limitWords } from '../core/limits/words.ts';
import type { Plan } from '../core/plan/types.ts';
import type { Conditions } from '../core/sim/conditions.ts';
import type { Snapshot } from '../core/snapshot/types.ts';
import { counted } from '../core/text/counted.ts';
import { firstOf } from '../core/text/first-of.ts';
import { type Followed, FollowedApp } from '../reader/process/followed-app.ts';
import { type ConditionOptions, conditionsOf, withConditionOptions } from './conditions.ts';
import { decidedFor } from './decided.ts';
import { planNamed } from './files.ts';
import { howProcessesRead, STARTS, tellOutside, WORKSPACE, workOf, workspaceFrom } from './reading.ts';

interface Options extends ConditionOptions {
  project?: string;
  plan?: string;
  workspace?: string;
  start?: string[];
}

export function addWatch(program: Command): void {
  const command = program
    .command('watch')
    .description(
      'follow an app’s folder: a line for each change, with what it did to which landing, and which limit broke',
    )
    .argument('<folder>', 'the app’s folder')
    .option(
      '--project <file>',
      `project file with corrections, plans and limits, in place of ${PLANS_FILE_NAME} in the folder`,
    )
    .option('--plan <name>', 'plan of the project under which landings are predicted; the baseline by default')
    .option(...WORKSPACE)
    .option(...STARTS);
  withConditionOptions(command).action(async (folder: string, options: Options, command: Command) => {
    const { plans, amendments } = decidedFor(folder, options.project);
    const plan = planNamed({ plans }, options.plan);
    const amended = (snapshot: Snapshot) => amend(snapshot, amendments).snapshot;
    const asJson = command.optsWithGlobals().json === true || !process.stdout.isTTY;
    const limitsOf = (app: Snapshot) => limitStates(app, amendments.limits ?? [], plans);
    const teller = new Teller(plan, conditionsOf(options), limitsOf, asJson);
    const how = { ...workspaceFrom(options), starts: options.start, corrected: rebuiltRoutes(amendments) };
    const { followed, first } = await FollowedApp.begin(workOf(folder, how), howProcessesRead(), (by) =>
      teller.tell(by, amended),
    );
    tellOutside(folder, first.snapshot);
    teller.begin(amended(first.snapshot), first.ms);
    await new Promise<void>((over) => {
      for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => over());
    });
    await followed.close();
  });
}

/** Says what happens, a line (or a line of JSON) at a time. */
class Teller {
  private state: AppState | null = null;
  private limits: LimitState[] = [];

  constructor(
    private readonly plan: Plan,
    private readonly conditions: Conditions,
    private readonly limitsOf: (app: Snapshot) => LimitState[],
    private readonly asJson: boolean,
  ) {}

  begin(app: Snapshot, ms: number): void {
    this.take(app);
    const { name, modules, routes } = app;
    this.say({ kind: 'following', name, modules: modules.length, routes: routes.length, ms }, [
      `${name}: ${counted(modules.length, 'module')}, ${counted(routes.length, 'route')}; each change is told here (Ctrl+C ends it)`,
      ...this.limits.filter((l) => l.state !== 'kept').map((l) => `limit ${l.state}: ${limitLine(l)}`),
    ]);
  }

  tell(by: Followed, amended: (snapshot: Snapshot) => Snapshot): void {
    switch (by.kind) {
      case 'read':
        this.changed(by, amended(by.read.snapshot));
        return;
      case 'broken':
        this.say(by, [
          `${savedWords(by.changed)}: can’t be read now, so the figures are of what was read before`,
          ...by.at.map((f) => `  ${f.path}:${f.line} ${f.message}`),
        ]);
        return;
      case 'refused':
        this.say({ kind: by.kind, changed: by.changed, error: by.error.toJSON() }, [
          `${savedWords(by.changed)}: ${by.error.message}`,
        ]);
        return;
      case 'trouble':
        this.say(by, [`changes may be missed: ${by.message}`]);
        return;
      default:
        by satisfies never;
    }
  }

  private changed({ changed: saved, read: { ms }, during }: Extract<Followed, { kind: 'read' }>, app: Snapshot): void {
    const [before, broken] = [this.state!, this.limits];
    const now = this.take(app);
    const landings = landingChanges(before, now);
    const lost = lostImports(before.app, now.app);
    const stood = new Map(broken.map((l) => [l.limit, l.state]));
    const limits = this.limits.filter((l) => l.state !== stood.get(l.limit));
    // What the reading before has seen already, or no module is, says nothing of the app.
    const isOfApp = !during && app.modules.some((m) => saved.includes(m.path));
    if (landings.length === 0 && limits.length === 0 && lost.length === 0 && !isOfApp) return;
    this.say({ kind: 'changed', saved, ms, lost, landings, limits }, [
      landings.length === 0 ? `${savedWords(saved)}: no landing changes` : savedWords(saved),
      ...lost.map((u) => `  ${lostWords(u)}`),
      ...alikeLandings(landings).flatMap((l) => landingLines(l, app.routes.length)),
      ...limits.map((l) => `  limit ${l.state}: ${limitLine(l)}`),
    ]);
  }

  private take(app: Snapshot): AppState {
    this.state = new AppState(app, this.plan, this.conditions);
    for (const { pattern } of app.routes) this.state.of(pattern);
    this.limits = this.limitsOf(app);
    return this.state;
  }

  private say(what: object, lines: string[]): void {
    const at = new Date();
    if (this.asJson) process.stdout.write(`${JSON.stringify({ at: at.toISOString(), ...what })}\n`);
    else {
      const [first, ...rest] = lines;
      const clock = at.toTimeString().slice(0, 8);
      process.stdout.write([`${clock} ${first}`, ...rest.map((l) => `         ${l}`), ''].join('\n'));
    }
  }
}

const MOST_NAMED = 3;

/** The files that were saved, in words. */
function savedWords(saved: readonly string[]): string {
  return `${firstOf(saved, MOST_NAMED)} saved`;
}

function limitLine({ limit, value, state }: LimitState): string {
  return `${limitWords(limit)}${state === 'missing' ? '' : `; now ${amountWords(limit.measure, value)}`}`;
}
