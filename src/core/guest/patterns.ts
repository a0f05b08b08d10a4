/**
 * Patterns of the definition, run in the machine, which can be stopped in the middle of one that backtracks without an
 * end. The built-ins are taken before any script has run.
 */
const MakeRegExp = RegExp;
const { exec } = RegExp.prototype;
const { apply } = Reflect;

/** Whether a text as a whole is spelled as the pattern says. */
export function fits(pattern: string, text: string): boolean {
  return apply(exec, new MakeRegExp(`^(?:${pattern})$`, 'u'), [text]) !== null;
}
