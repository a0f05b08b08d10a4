/** What a page of workspaces says about each. */
import { counted } from '../counted';
import { freeName, slugOf } from '../form/name';

export interface WorkspaceRow {
  /** What addresses call it. */
  name: string;
  title: string;
  /** The one at the root addresses, which is always there. */
  first: boolean;
  archived: boolean;
  /**
   * The folder that it is kept the same as, with how many things are wrong there or in conflict, and what they are, with
   * what else stands there that is not looked into, in words; null for none.
   */
  folder: { path: string; kept: boolean; wrong: number; says: string[] } | null;
  forms: number;
  /** What the last checks found; `unchecked` forms have none, or have changed since. */
  errors: number;
  warnings: number;
  failing: number;
  unchecked: number;
  /** When something of it was last saved; null when nothing ever was. */
  changedAt: string | null;
}

export interface RemovedWorkspace {
  name: string;
  title: string;
}

/** Characters of a workspace's name in addresses. */
const NAME_LENGTH = 40;

/** A name for addresses made from a title that no workspace has yet: small letters, digits and hyphens. */
export function workspaceName(title: string, taken: ReadonlySet<string>): string {
  const stem = slugOf(title, '-').slice(0, NAME_LENGTH).replace(/-+$/, '') || 'workspace';
  return freeName(stem, taken, '-');
}

/** Whether nothing is known to be wrong with a workspace, something is, or it has not been looked at. */
export function soundnessInWords({ errors, warnings, failing, unchecked, forms }: WorkspaceRow): {
  tone: 'good' | 'bad' | 'warning' | 'unknown';
  says: string;
} {
  const some = (count: number, what: string) => (count === 0 ? [] : [counted(count, what)]);
  const found = [
    ...some(errors, 'error'),
    ...some(warnings, 'warning'),
    ...some(failing, 'failing scenario'),
  ].join(', ');
  if (found !== '') return { tone: errors + failing > 0 ? 'bad' : 'warning', says: found };
  if (forms === 0) return { tone: 'unknown', says: 'no form yet' };
  if (unchecked > 0)
    return { tone: 'unknown', says: `${some(unchecked, 'form').join('')} not checked yet` };
  return { tone: 'good', says: 'no problems' };
}
