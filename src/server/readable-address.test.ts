import http from 'node:http';
import type { AddressInfo } from 'node:net';
import fc from 'fast-check';
import { makeAddressesReadable, readableAddress } from './readable-address.ts';

it.each([
  ['/p/a%20b/startup?route=%2F', '/p/a%20b/startup?route=%2F'],
  ['/p/%C3%A9', '/p/%C3%A9'],
  ['/p/%FF/x', '/p/%EF%BF%BD/x'],
  ['/p/100%', '/p/100%EF%BF%BD'],
  ['/p/%E0%A4%A', '/p/%EF%BF%BD%EF%BF%BDA'],
  ['/?q=%FF', '/?q=%FF'],
])('%s is taken as %s', (address, taken) => {
  expect(readableAddress(address)).toBe(taken);
});

it('any path can be decoded, and one that could stays as it is', () => {
  fc.assert(
    fc.property(fc.array(fc.oneof(fc.string(), fc.constantFrom('%', '%FF', '%C3%A9', '%2', '/', '?'))), (pieces) => {
      const address = `/${pieces.join('')}`;
      const [path] = readableAddress(address).split('?');
      expect(() => decodeURIComponent(path)).not.toThrow();
      expect(readableAddress(readableAddress(address))).toBe(readableAddress(address));
    }),
  );
});

it('is what a server then gets', async () => {
  makeAddressesReadable();
  const server = http.createServer(({ url }, answer) => answer.end(url)).listen(0, '127.0.0.1');
  await new Promise((listening) => server.once('listening', listening));
  const { port } = server.address() as AddressInfo;
  const answer = await fetch(`http://127.0.0.1:${port}/p/%FF?a`);
  expect(await answer.text()).toBe('/p/%EF%BF%BD?a');
  await new Promise((closed) => server.close(closed));
});
