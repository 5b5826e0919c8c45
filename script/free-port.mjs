import net from 'node:net';

/** A port of this machine that nothing listens on. */
export function freePort() {
  return new Promise((done, failed) => {
    const server = net.createServer();
    server.once('error', failed);
    server.listen(0, '127.0.0.1', () => {
      const { port } = server.address();
      server.close(() => done(port));
    });
  });
}
