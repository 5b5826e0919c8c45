import { Relay, type RelayedLink } from './relay.ts';

/** A relay in a process of its own, so that nothing else delays its packets. It is started with its link and port, tells its own, and ends with who started it. */
const { link, target } = JSON.parse(process.argv[2]) as { link: RelayedLink; target: number };
const relay = await Relay.start(link, target);
process.send!({ port: relay.port });
process.on('disconnect', () => process.exit());
