import { EmulatedLink } from '../link/emulated-link.ts';
import type { FromServer, ToServer } from './messages.ts';
import { RehearsalServer } from './server.ts';
import type { Answer, Request } from './types.ts';

/**
 * A server with the link before it, in a process of its own, so that nothing else delays its packets. What it doesn’t know it asks who
 * started it; it ends with that.
 */
const asked = new Map<number, (answer: Answer | null) => void>();
let questions = 0;
let link: EmulatedLink | null = null;
const known = new Map<string, Answer>();
const tell = (message: FromServer) => process.send!(message);
const keyOf = ({ host, address, forDocument }: Request) => `${forDocument ? 'document' : 'file'} ${host} ${address}`;

function answer(request: Request): Answer | Promise<Answer | null> {
  const found = request.sent ? undefined : known.get(keyOf(request));
  if (found) return found;
  const id = questions++;
  const began = performance.now();
  tell({ ask: id, request });
  return new Promise((done) => {
    asked.set(id, (given) => {
      asked.delete(id);
      // What asking took is part of what the server takes.
      done(given && { ...given, serverMs: Math.max(0, given.serverMs - (performance.now() - began)) });
    });
  });
}

process.on('message', async (message: ToServer) => {
  if ('answer' in message) {
    asked.get(message.to)!(message.answer);
    return;
  }
  if ('newcomer' in message) {
    link?.forget();
    return;
  }
  const { hosts, speaking, link: carried, answers } = message.start;
  for (const [request, given] of answers) known.set(keyOf(request), given);
  const server = await RehearsalServer.start(hosts, speaking, answer);
  link = await EmulatedLink.open({ ...carried, tls: speaking.tls }, server.port, hosts.length);
  tell({ ports: link.ports, direct: server.port, fingerprint: server.fingerprint });
});
process.on('disconnect', () => process.exit());
