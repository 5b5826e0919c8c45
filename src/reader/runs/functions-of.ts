import { parse } from '../script/parse.ts';
import { type CalledInFunctions, calledInFunctions } from './called-in-functions.ts';

/** What functions of modules call, by their paths; each is gone through once. */
export class FunctionsOf {
  private readonly known = new Map<string, CalledInFunctions>();

  /** `texts`: what ships of each module, by path. */
  constructor(private readonly texts: Readonly<Record<string, string>>) {}

  at(path: string): CalledInFunctions {
    let found = this.known.get(path);
    if (!found) {
      found = calledInFunctions(parse('out.js', this.texts[path] ?? '').program());
      this.known.set(path, found);
    }
    return found;
  }
}
