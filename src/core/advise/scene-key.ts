import type {
  Deed,
  Group,
  LinkHint,
  LoadProgram,
  Need,
  Resource,
  Scene,
  SceneAction,
  ScreenPart,
} from '../load/types.ts';

/**
 * What a field holds: a value by itself, or other things of the program by their indices. Each table answers to every
 * field of its type, so that a new field can't be forgotten: the compiler asks what it holds.
 */
type Holds =
  | 'value'
  | 'resource'
  | 'resources'
  | 'groups'
  | 'part'
  | 'parts'
  | 'needs'
  | 'need'
  | 'actions'
  | 'moment'
  | 'nothing that counts';

const RESOURCE: Record<keyof Resource, Holds> = {
  address: 'value',
  name: 'value',
  origin: 'value',
  type: 'value',
  bytes: 'value',
  unknownSize: 'value',
  serverMs: 'value',
  cache: 'value',
  cpuMs: 'value',
  estimatedBytes: 'value',
  imports: 'resources',
  follow: 'actions',
  awaits: 'groups',
  purpose: 'value',
  // Which chunk it is of a graph, and what of it is idle, changes nothing that happens.
  chunk: 'nothing that counts',
  idle: 'nothing that counts',
  document: 'value',
  changes: 'value',
};

const GROUP: Record<keyof Group, Holds> = { name: 'value', resources: 'resources', after: 'groups', loader: 'value' };

const PART: Record<keyof ScreenPart, Holds> = {
  id: 'value',
  route: 'value',
  name: 'value',
  place: 'value',
  drawnBy: 'value',
  interactive: 'value',
  needs: 'needs',
  after: 'parts',
  fill: 'resources',
  renderMs: 'value',
  answerNeeds: 'needs',
  tellsFailure: 'value',
  fallback: 'value',
  standInNeeds: 'needs',
  showWhen: 'moment',
  screens: 'value',
  held: 'value',
  together: 'value',
  onItsOwn: 'value',
};

/** What an action does is walked by its kind. */
const ACTION: Record<Exclude<keyof SceneAction, 'do'>, Holds> = {
  when: 'value',
  delayMs: 'value',
  target: 'part',
  media: 'value',
  after: 'need',
};

const LINK: Record<keyof LinkHint, Holds> = {
  rel: 'value',
  resource: 'resource',
  origin: 'value',
  as: 'value',
  crossorigin: 'value',
  fetchpriority: 'value',
  media: 'value',
  notForDataSaver: 'value',
  keptByApp: 'value',
  chosen: 'value',
};

/**
 * A text that is the same for two scenes exactly if they set off the same: all that they lead to, however remote, with
 * indices numbered as they are met, since other parts of the program decide about those.
 */
export function sceneKey(program: LoadProgram, scene: Scene): string {
  return JSON.stringify(new Walk(program).scene(scene));
}

class Walk {
  private readonly met = {
    resources: new Map<number, number>(),
    groups: new Map<number, number>(),
    parts: new Map<number, number>(),
  };

  constructor(private readonly program: LoadProgram) {}

  scene({ kind, until, first, shows, hides, approach, act }: Scene): unknown {
    // Of what leaves the screen only what comes again is drawn anew; the rest asks for nothing and holds nothing up.
    const again = shows.map((p) => hides.includes(p));
    return [
      kind,
      until,
      again,
      first.map((r) => this.resource(r)),
      shows.map((p) => this.part(p)),
      approach.map((a) => this.action(a)),
      act.map((a) => this.action(a)),
    ];
  }

  private resource(at: number): unknown {
    return this.thing('resources', at, RESOURCE);
  }

  private group(at: number): unknown {
    return this.thing('groups', at, GROUP);
  }

  private part(at: number): unknown {
    return this.thing('parts', at, PART);
  }

  /** A thing of the program: all of it when it is met first, its number from then on. */
  private thing<T extends object>(
    of: 'resources' | 'groups' | 'parts',
    at: number,
    holds: Record<keyof T, Holds>,
  ): unknown {
    if (at < 0) return at;
    const met = this.met[of];
    const known = met.get(at);
    if (known !== undefined) return known;
    met.set(at, met.size);
    return this.fields(this.program[of][at] as unknown as T, holds);
  }

  private fields<T extends object>(item: T, holds: Record<keyof T, Holds>): unknown[] {
    return (Object.keys(holds) as (keyof T)[]).map((field) => {
      const value = item[field];
      return value === undefined ? null : this.held(value, holds[field]);
    });
  }

  private held(value: unknown, holds: Holds): unknown {
    switch (holds) {
      case 'value':
        return value;
      case 'resource':
        return this.resource(value as number);
      case 'resources':
        return (value as number[]).map((r) => this.resource(r));
      case 'groups':
        return (value as number[]).map((g) => this.group(g));
      case 'part':
        return this.part(value as number);
      case 'parts':
        return (value as number[]).map((p) => this.part(p));
      case 'need':
        return this.need(value as Need);
      case 'needs':
        return (value as Need[]).map((n) => this.need(n));
      case 'actions':
        return (value as SceneAction[]).map((a) => this.action(a));
      case 'moment': {
        const { target, ...moment } = value as { target?: number };
        return [moment, target === undefined ? null : this.part(target)];
      }
      case 'nothing that counts':
        return null;
    }
  }

  private need({ resource, state }: Need): unknown {
    return [state, this.resource(resource)];
  }

  private action({ do: deed, ...when }: SceneAction): unknown {
    return [this.fields<Omit<SceneAction, 'do'>>(when, ACTION), this.deed(deed)];
  }

  private deed(deed: Deed): unknown {
    switch (deed.kind) {
      case 'import':
        return [deed.kind, this.group(deed.group)];
      case 'script':
        return [deed.kind, this.group(deed.group), deed.ordered];
      case 'fetch':
        return [deed.kind, this.resource(deed.resource), deed.maxAgeMs ?? null, deed.ahead ?? null];
      case 'img':
        return [deed.kind, this.resource(deed.resource)];
      case 'link':
        return [deed.kind, this.fields(deed.hint, LINK)];
      case 'rule':
        return [deed.kind, deed.does, deed.address, deed.media ?? null, deed.instead.map((d) => this.deed(d))];
      case 'cpu':
        return [deed.kind, deed.ms, deed.name];
      case 'scroll':
      case 'render':
        return [deed.kind, this.part(deed.part)];
    }
  }
}
