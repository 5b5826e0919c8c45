import type { Link } from './conditions.ts';
import type { EventQueue } from './event-queue.ts';
import type { LinkQueue } from './link-queue.ts';

/** What a question for a name and its answer are as packets: two of each go together, for the address and for what else is known of the origin (fact 30). */
const QUESTION = 75;
const ANSWER = 110;

/** Addresses of origins: each name is looked up once, whoever asks for it (fact 34). */
export class Names {
  private readonly known = new Map<string, { at: number; waiting: (() => void)[] }>();

  constructor(
    private readonly clock: EventQueue,
    private readonly link: Link,
    private readonly up: LinkQueue,
    private readonly down: LinkQueue,
  ) {}

  /** Calls back once the name of an origin is known: at once where it is, or where names cost nothing. */
  whenKnown(origin: string, then: () => void): void {
    const { clock } = this;
    const name = this.known.get(origin);
    if (name) {
      if (name.at <= clock.now) then();
      else name.waiting.push(then);
      return;
    }
    const asked = { at: Number.POSITIVE_INFINITY, waiting: [then] };
    this.known.set(origin, asked);
    this.lookUp(() => {
      asked.at = clock.now;
      for (const next of asked.waiting.splice(0)) next();
    });
  }

  private lookUp(then: () => void): void {
    const { clock, link, up, down } = this;
    if (link.resolverMs === undefined) {
      if (link.dnsMs > 0) clock.at(clock.now + link.dnsMs, then);
      else then();
      return;
    }
    const { resolverMs } = link;
    up.send(clock.now, QUESTION);
    clock.at(up.send(clock.now, QUESTION), () => {
      clock.at(clock.now + resolverMs, () => {
        down.send(clock.now, ANSWER);
        clock.at(down.send(clock.now, ANSWER), then);
      });
    });
  }
}
