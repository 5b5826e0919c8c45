import type net from 'node:net';

/** Has a server listen at a free port of this machine that only this machine reaches; gives the port. */
export async function onLoopback(server: net.Server): Promise<number> {
  await new Promise<void>((done, fail) => server.once('error', fail).listen(0, '127.0.0.1', done));
  return (server.address() as net.AddressInfo).port;
}
