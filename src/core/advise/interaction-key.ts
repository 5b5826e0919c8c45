import type {
  Effect,
  Group,
  Interaction,
  InteractionAction,
  LinkHint,
  LoadProgram,
  Need,
  PartFont,
  Resource,
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
  | 'fonts'
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
  tabledMs: 'value',
  estimatedBytes: 'value',
  tabledBytes: 'value',
  codeBytes: 'value',
  modules: 'value',
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
  tabledMs: 'value',
  showsMs: 'value',
  fillMs: 'value',
  fillTabledMs: 'value',
  measured: 'value',
  fonts: 'fonts',
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
const ACTION: Record<Exclude<keyof InteractionAction, 'do'>, Holds> = {
  when: 'value',
  delayMs: 'value',
  target: 'part',
  answers: 'resources',
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
 * A text that is the same for two interactions exactly if they set off the same: all that they lead to, however remote, with
 * indices numbered as they are met, since other parts of the program decide about those.
 */
export function interactionKey(program: LoadProgram, interaction: Interaction): string {
  return JSON.stringify(new Walk(program).interaction(interaction));
}

class Walk {
  private readonly met = {
    resources: new Map<number, number>(),
    groups: new Map<number, number>(),
    parts: new Map<number, number>(),
  };

  constructor(private readonly program: LoadProgram) {}

  interaction({ kind, until, first, shows, hides, approach, act }: Interaction): unknown {
    // Of what leaves the screen only what comes again is drawn again; the rest asks for nothing and holds nothing up.
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
    const earlier = met.get(at);
    if (earlier !== undefined) return earlier;
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
        return (value as InteractionAction[]).map((a) => this.action(a));
      case 'moment': {
        const { target, ...moment } = value as { target?: number };
        return [moment, target === undefined ? null : this.part(target)];
      }
      case 'fonts':
        return (value as PartFont[]).map((f) => [f.display, this.resource(f.resource), this.resource(f.declaredBy)]);
      case 'nothing that counts':
        return null;
    }
  }

  private need({ resource, state }: Need): unknown {
    return [state, this.resource(resource)];
  }

  private action({ do: effect, ...when }: InteractionAction): unknown {
    return [this.fields<Omit<InteractionAction, 'do'>>(when, ACTION), this.effect(effect)];
  }

  private effect(effect: Effect): unknown {
    switch (effect.kind) {
      case 'import':
        return [effect.kind, this.group(effect.group)];
      case 'script':
        return [effect.kind, this.group(effect.group), effect.ordered];
      case 'fetch':
        return [effect.kind, this.resource(effect.resource), effect.maxAgeMs ?? null, effect.ahead ?? null];
      case 'img':
        return [effect.kind, this.resource(effect.resource)];
      case 'link':
        return [effect.kind, this.fields(effect.hint, LINK)];
      case 'rule':
        return [
          effect.kind,
          effect.does,
          effect.address,
          effect.media ?? null,
          effect.instead.map((d) => this.effect(d)),
        ];
      case 'cpu':
        return [effect.kind, effect.ms, effect.name];
      case 'scroll':
      case 'render':
        return [effect.kind, this.part(effect.part)];
      default:
        return effect satisfies never;
    }
  }
}
