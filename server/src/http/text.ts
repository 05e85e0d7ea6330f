/** Text that no database, paper or other program could keep: half a sign, or the sign that ends a string. */
import type { InputProblem } from '@jutbank/core/result';

const UNKEEPABLE = /[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/;
const cannotBeKept = (text: string): boolean => text.includes('\0') || UNKEEPABLE.test(text);
const DEEPEST = 60;
const MOST_TOLD = 20;

/** Where in a document text stands that cannot be kept; names of keys are text as well. */
export function unkeepable(value: unknown, prefix = ''): InputProblem[] {
  const found: InputProblem[] = [];
  const say = (pointer: string) => {
    if (found.length < MOST_TOLD)
      found.push({ pointer, message: 'this text holds a sign that cannot be kept; type it again' });
  };
  const walk = (at: unknown, pointer: string, depth: number): void => {
    if (typeof at === 'string') {
      if (cannotBeKept(at)) say(pointer);
    } else if (typeof at === 'object' && at !== null) {
      if (depth > DEEPEST) {
        found.push({ pointer, message: 'this is nested too deeply' });
        return;
      }
      for (const [name, inner] of Object.entries(at)) {
        if (cannotBeKept(name)) say(pointer);
        else walk(inner, `${pointer}/${name.replaceAll('~', '~0').replaceAll('/', '~1')}`, depth + 1);
      }
    }
  };
  walk(value, prefix, 0);
  return found;
}
