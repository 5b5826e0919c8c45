import { InputError } from '../errors.ts';
import { parseJson } from './json.ts';

const refused = (source: string): { message: string; where?: string } => {
  try {
    parseJson(source, 'a.json');
  } catch (error) {
    if (error instanceof InputError) return { message: error.message, where: JSON.stringify(error) + error.message };
    throw error;
  }
  return { message: 'taken' };
};
const nested = (depth: number, inner = '1') => '['.repeat(depth) + inner + ']'.repeat(depth);

describe('JSON from outside', () => {
  it('may nest 200 deep, in lists and objects', () => {
    expect(refused(nested(200)).message).toBe('taken');
    expect(refused(nested(201)).message).toContain('more than 200 deep');
    expect(refused(`${'{"a":'.repeat(201)}1${'}'.repeat(201)}`).message).toContain('more than 200 deep');
    expect(refused(`[${Array.from({ length: 300 }, () => '[]').join()}]`).message).toBe('taken');
  });

  it('may have any brackets in its texts, whatever stands before their quotation marks', () => {
    const brackets = '['.repeat(300);
    expect(parseJson(JSON.stringify({ a: brackets }), 'a')).toEqual({ a: brackets });
    expect(parseJson(JSON.stringify({ a: `"${brackets}` }), 'a')).toEqual({ a: `"${brackets}` });
    expect(parseJson(JSON.stringify({ a: '\\', b: brackets }), 'a')).toEqual({ a: '\\', b: brackets });
    expect(parseJson(JSON.stringify([`\\"${brackets}`, '\\\\']), 'a')).toEqual([`\\"${brackets}`, '\\\\']);
  });

  it('is told with the place where it breaks off', () => {
    expect(refused('{\n  "a": 1,\n  b: 2\n}').where).toContain('a.json:3:3');
    expect(refused('[1,').where).toContain('a.json:1:');
    expect(refused(`\n ${nested(201)}`).where).toContain('a.json:2:202');
  });
});
