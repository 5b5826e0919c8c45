import fs from 'node:fs';
import http from 'node:http';
import type { AddressInfo } from 'node:net';
import path from 'node:path';
import { planned } from '../src/core/chunks/planned.ts';
import { BASELINE, type Decision } from '../src/core/plan/types.ts';
import { type Reading } from '../src/reader/read-source.ts';
import { assemble } from '../src/rehearse/assemble/assemble.ts';

/** Serves the files that are assembled of an app under a plan, with the document as it is written. */
export class AssembledApp {
  private constructor(
    private readonly server: http.Server,
    /** Addresses that were asked for, in their order. */
    readonly asked: string[],
  ) {}

  static async start(folder: string, { snapshot, texts }: Reading, decisions: Decision[] = []): Promise<AssembledApp> {
    const { graph } = planned(snapshot, { ...BASELINE, decisions });
    const addressOf = (c: number) => `/assets/${c}.${graph.chunks[c].kind === 'style' ? 'css' : 'js'}`;
    const { files, told } = assemble(snapshot, graph, texts, addressOf);
    expect(told).toEqual([]);
    const made = new Map(files.map((f) => [f.address, f.text]));
    const start = graph.roots.find((r) => r.kind === 'entry')!.group.map(addressOf);
    const tags = start.map((a) =>
      a.endsWith('.css') ? `<link rel="stylesheet" href="${a}">` : `<script defer src="${a}"></script>`,
    );
    const written = fs.readFileSync(path.join(folder, 'index.html'), 'utf8').replace(/<script[\s\S]*?<\/script>/g, '');
    const document = written.includes('</head>')
      ? written.replace('</head>', `${tags.join('')}</head>`)
      : tags.join('') + written;
    const asked: string[] = [];
    const server = http.createServer((request, response) => {
      const { pathname } = new URL(request.url!, 'http://x');
      const text = made.get(pathname);
      asked.push(pathname);
      if (text !== undefined) {
        response.writeHead(200, { 'content-type': pathname.endsWith('.css') ? 'text/css' : 'text/javascript' });
        response.end(text);
      } else if (pathname.startsWith('/api/')) {
        response.writeHead(200, { 'content-type': 'application/json' });
        response.end('[]');
      } else if (/\.\w+$/.test(pathname)) response.writeHead(404).end();
      else response.writeHead(200, { 'content-type': 'text/html' }).end(document);
    });
    await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
    return new AssembledApp(server, asked);
  }

  get address(): string {
    return `http://127.0.0.1:${(this.server.address() as AddressInfo).port}`;
  }

  stop(): void {
    this.server.close();
    this.server.closeAllConnections();
  }
}
