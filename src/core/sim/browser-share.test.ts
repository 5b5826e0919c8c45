import { part, route, sketch } from '../../test-support/snapshots.ts';
import { withMeasured } from '../amend/with-measured.ts';
import { BASELINE } from '../plan/types.ts';
import { predict } from '../predict/predict.ts';
import { DEFAULT_CONDITIONS } from './conditions.ts';

it('a browser that does its own work in a share of the time is like one that is so much faster at it', () => {
  const app = sketch(
    { main: { imports: ['~page'] }, page: { imports: ['~panel'] }, panel: {} },
    { routes: [route('/', 'page', { parts: [part('panel', 'panel')] })] },
  );
  const { device } = DEFAULT_CONDITIONS;
  for (const share of [0.4, 1, 1.7]) {
    const told = predict(withMeasured(app, { by: 'x', browser: share }), BASELINE, '/', DEFAULT_CONDITIONS);
    const faster = { ...DEFAULT_CONDITIONS, device: { ...device, browserFactor: device.browserFactor * share } };
    expect(told.timeline).toEqual(predict(app, BASELINE, '/', faster).timeline);
  }
});
