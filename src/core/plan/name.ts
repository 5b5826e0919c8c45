import { InputError } from '../errors.ts';
import { converted, refined } from '../form/form.ts';
import { TEXT } from '../form/values.ts';

/** A name of 1 to 80 letters, without space around it. */
export const NAME = refined(
  converted(TEXT, (name) => name.trim()),
  (name, at) => {
    if (name === '' || name.length > 80) throw new InputError('Not a name', 'Give a name of 1 to 80 letters.', at);
  },
  { pattern: '^\\s*\\S([\\s\\S]{0,78}\\S)?\\s*$' },
);
