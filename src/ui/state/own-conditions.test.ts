import { forgetConditions, keepConditions, recallConditions, useKeptConditions } from './own-conditions.ts';

const stored = new Map<string, string>();
globalThis.localStorage = {
  getItem: (key: string) => stored.get(key) ?? null,
  setItem: (key: string, value: string) => stored.set(key, value),
} as unknown as Storage;
const names = () => useKeptConditions.getState().links.map((k) => k.name);

beforeEach(() => {
  stored.clear();
  recallConditions();
});

describe('own conditions', () => {
  it('are kept under names, each values and each name once, and come back with the next page', () => {
    keepConditions('links', { id: 'own~10', name: 'Office' });
    keepConditions('links', { id: 'own~20', name: 'Field' });
    keepConditions('links', { id: 'own~30', name: 'Office' });
    keepConditions('links', { id: 'own~20', name: 'Pier' });
    keepConditions('devices', { id: 'own~3', name: 'Till' });
    expect(names()).toEqual(['Office', 'Pier']);
    useKeptConditions.setState({ links: [], devices: [] });
    recallConditions();
    expect(names()).toEqual(['Office', 'Pier']);
    forgetConditions('links', 'own~30');
    recallConditions();
    expect([names(), useKeptConditions.getState().devices]).toEqual([['Pier'], [{ id: 'own~3', name: 'Till' }]]);
  });

  it.each(['{', 'null', '[]', '{"links":7}', '{"links":[{"id":"home-line","name":"x"},{"id":"own~1"},null]}'])(
    'that can’t be read count as none: %s',
    (text) => {
      stored.set('yokeline:conditions', text);
      recallConditions();
      expect(useKeptConditions.getState()).toEqual({ links: [], devices: [] });
    },
  );
});
