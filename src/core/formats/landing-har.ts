import type { Prediction } from '../predict/predict.ts';
import type { Conditions } from '../sim/conditions.ts';
import { VERSION } from '../version.ts';
import { writeHar } from './har.ts';

/** Versions as the archive writes them; where a load begins with one and goes on with another, the first. */
const HTTP_VERSIONS = { h1: 'HTTP/1.1', h2: 'h2', h3: 'h3', 'h2-h3': 'h2' } as const;

/** A predicted landing as the text of an HTTP Archive (HAR 1.2). `startedAt`: an ISO date that its times count from. */
export function landingHar(
  app: string,
  route: string,
  { timeline, reading }: Pick<Prediction, 'timeline' | 'reading'>,
  { link: { protocol } }: Conditions,
  startedAt: string,
): string {
  const frame = {
    origin: 'https://app.example',
    title: `${app} ${route}`,
    startedAt,
    version: VERSION,
    httpVersion: HTTP_VERSIONS[protocol],
  };
  return JSON.stringify(writeHar(timeline, reading, frame), null, 1);
}
