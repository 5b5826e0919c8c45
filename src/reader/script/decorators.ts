import { walk } from '../syntax.ts';
import { parse } from './parse.ts';

/** What decorators of before the standard come down to (public form of TypeScript's helpers), for code that has lost its way to them. */
const HELPERS: Readonly<Record<string, string>> = {
  decorate: `function _decorate(decorators, target, key, described) {
  var count = arguments.length, made = count < 3 ? target : described === null ? (described = Object.getOwnPropertyDescriptor(target, key)) : described;
  for (var i = decorators.length - 1; i >= 0; i--) if (decorators[i]) made = (count < 3 ? decorators[i](made) : count > 3 ? decorators[i](target, key, made) : decorators[i](target, key)) || made;
  return count > 3 && made && Object.defineProperty(target, key, made), made;
}`,
  decorateParam: `function _decorateParam(at, decorator) {
  return function (target, key) { decorator(target, key, at); };
}`,
};

/** Code with the helpers of decorators in it, which its compiler would have imported. */
export function withHelpers(code: string): string {
  return code.replace(
    /^(?:import _\w{1,20} from |var _\w{1,20} = require\()"@oxc-project\/runtime\/helpers\/(\w{1,20})"\)?;$/gm,
    (line, name: string) => HELPERS[name] ?? line,
  );
}

/** Whether a script without types still has decorators in it. */
export function hasDecorators(code: string): boolean {
  let has = false;
  walk(parse('out.jsx', code, { lang: 'jsx' }).program(), (node) => {
    has ||= node.type === 'Decorator';
  });
  return has;
}
