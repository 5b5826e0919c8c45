import { createHash, X509Certificate } from 'node:crypto';
import { generate } from 'selfsigned';

/** A certificate for each host of a rehearsal, with one key. */
export interface Certificates {
  key: string;
  /** By host. */
  certs: ReadonlyMap<string, string>;
  /** What a browser is told to accept: the key’s digest (SHA-256 of its SPKI, base64), and nothing else. */
  fingerprint: string;
}

const ONE_DAY_MS = 86_400_000;

/** Makes certificates that only this rehearsal knows; each host has its own, so that browsers don’t share connections between hosts. */
export async function certificatesFor(hosts: readonly string[]): Promise<Certificates> {
  const certs = new Map<string, string>();
  let keyPair: { privateKey: string; publicKey: string } | undefined;
  for (const host of hosts) {
    const made = await generate([{ name: 'commonName', value: host }], {
      ...{ keyType: 'ec', algorithm: 'sha256', keyPair },
      notAfterDate: new Date(Date.now() + ONE_DAY_MS),
      extensions: [{ name: 'subjectAltName', altNames: [{ type: 2, value: host }] }],
    });
    keyPair ??= { privateKey: made.private, publicKey: made.public };
    certs.set(host, made.cert);
  }
  const [first] = certs.values();
  const spki = new X509Certificate(first).publicKey.export({ type: 'spki', format: 'der' });
  return { key: keyPair!.privateKey, certs, fingerprint: createHash('sha256').update(spki).digest('base64') };
}
