import { route, sketch } from '../../test-support/snapshots.ts';
import { planned } from '../chunks/planned.ts';
import { BASELINE, type Decision } from '../plan/types.ts';
import { compileLoad } from './compile.ts';

const app = sketch(
  {
    main: { imports: ['~home', '~list'] },
    admin: { imports: ['~desk'] },
    home: {},
    list: {},
    desk: {},
  },
  {
    entries: [
      { realm: 'site', kind: 'document', document: 'index.html', modules: ['main'] },
      { realm: 'office', kind: 'document', document: 'office.html', modules: ['admin'] },
    ],
    routes: [
      route('/', 'home', { links: ['/list', '/desk'] }),
      route('/list', 'list', { links: ['/'] }),
      route('/desk', 'desk', { realm: 'office', links: ['/'] }),
    ],
  },
);
const ahead = (splitPoint: string, on: 'idle' | 'approach' = 'idle') => {
  const decision: Decision = { kind: 'trigger', splitPoint, fetch: { on } };
  const { resources } = compileLoad(planned(app, { ...BASELINE, decisions: [decision] }), '/');
  return resources
    .filter((r) => r.follow.length > 0)
    .flatMap((r) => r.follow.flatMap((f) => (f.do.kind === 'link' ? [resources[f.do.hint.resource].name] : [])));
};

describe('code of linked routes', () => {
  it('is fetched ahead at the trigger of its page', () => {
    expect(ahead('list')).toEqual(['list']);
  });

  it('is not fetched ahead where its page belongs to another entry, whose files are others', () => {
    expect(ahead('desk')).toEqual([]);
  });

  it('waits for the approach where the plan says so', () => {
    expect(ahead('list', 'approach')).toEqual([]);
  });
});
