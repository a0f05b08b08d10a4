/** What a person does with rows: adding, removing, moving. Each says why it cannot be done, or null. */
import { ROWS_PER_FIELD } from '../limits';
import type { FieldOf } from '../form/definition';
import { accept, readRow } from '../form/kinds';
import type { Values } from '../form/value';
import type { Progress } from './progress';
import type { Situation } from './situation';
import type { State } from './state';
import { reachable } from './step-words';
import type { Writing } from './writing';
import type { Defaults } from './defaults';

export class RowSteps {
  constructor(
    private readonly state: State,
    private readonly progress: Progress,
    private readonly situation: Situation,
    private readonly writing: Writing,
    private readonly defaults: Defaults,
  ) {}

  add(name: string, given: readonly Values[], cause: number | null): string | null {
    const part = reachable(this.state, this.situation, name, 'field');
    if (typeof part === 'string') return part;
    const { rows } = part;
    if (rows === null) return `${part.label} has no rows`;
    const field = part.field as FieldOf<'rows'>;
    const most = field.maxRows ?? ROWS_PER_FIELD;
    if (rows.list.length + given.length > most) return `${part.label} takes at most ${most} rows`;
    const defaults = this.defaults.ofCells(field.fields);
    const read: Values[] = [];
    for (const row of given) {
      const values = readRow(
        { ...defaults, ...row },
        field,
        this.state.offers.surroundings(part),
        accept,
      );
      if (typeof values === 'string') return `${part.label} takes rows of its own cells; ${values}`;
      read.push(values);
    }
    this.progress.queue.push(() => {
      const added = read.map((values) => rows.make(values));
      this.progress.entered(() => this.state.setRows(rows, [...rows.list, ...added]));
      this.writing.arrange(part, [...rows.list, ...added], added, 'added', 'person', cause);
    });
    return null;
  }

  remove(name: string, cause: number | null): string | null {
    const part = reachable(this.state, this.situation, name, 'row');
    if (typeof part === 'string') return part;
    const { rows } = part.row!;
    const without = () => rows.list.filter((row) => row !== part.row);
    this.progress.queue.push(() => {
      this.progress.entered(() => this.state.setRows(rows, without()));
      this.writing.arrange(rows.field, without(), [part.row!], 'removed', 'person', cause);
    });
    return null;
  }

  /** `to` is the place it has then, from 0. */
  move(name: string, to: number, cause: number | null): string | null {
    const part = reachable(this.state, this.situation, name, 'row');
    if (typeof part === 'string') return part;
    const row = part.row!;
    const { rows } = row;
    if (to >= rows.list.length)
      return `${rows.field.label} has ${rows.list.length} rows, so none can be moved to place ${to}`;
    this.progress.queue.push(() => {
      const moved = () => {
        const list = rows.list.filter((other) => other !== row);
        list.splice(to, 0, row);
        return list;
      };
      this.progress.entered(() => this.state.setRows(rows, moved()));
      if (row.index !== to)
        this.writing.arrange(rows.field, moved(), [row], 'moved', 'person', cause);
    });
    return null;
  }
}
