/**
 * Rules that wait for their turn, the first in order first. Rules for each row share an order, so there are as many
 * queues as rules were written, however many rows there are. A rule that is taken out stays in its queue and is passed
 * over: what counts is the ticket it drew last.
 */
import type { Rule } from './tie';

interface Queue {
  order: number;
  rules: Rule[];
  tickets: number[];
  /** Where the queue begins; what stands before has had its turn. */
  head: number;
}

export class Stirred {
  /** By order. */
  #queues: Queue[] = [];
  /** Not undone: tickets only tell an earlier turn from a later one. */
  #tickets = 0;

  add(rule: Rule): void {
    if (rule.state === 'rests') rule.state = 'stirred';
    if (rule.ticket !== 0) return;
    const queue = this.#queueOf(rule.order);
    rule.ticket = ++this.#tickets;
    queue.rules.push(rule);
    queue.tickets.push(rule.ticket);
  }

  #queueOf(order: number): Queue {
    for (const queue of this.#queues) if (queue.order === order) return queue;
    const queue = { order, rules: [], tickets: [], head: 0 };
    this.#queues = [...this.#queues, queue].sort((a, b) => a.order - b.order);
    return queue;
  }

  /** It has had its turn, or needs none. */
  delete(rule: Rule): void {
    rule.ticket = 0;
    rule.state = 'rests';
  }

  clear(): void {
    for (const { rules } of this.#queues) for (const rule of rules) this.delete(rule);
    this.#queues = [];
  }

  /** The first in order, of one order the one that was stirred first; null when none waits. */
  first(): Rule | null {
    for (const queue of this.#queues) {
      const { rules, tickets } = queue;
      while (queue.head < rules.length) {
        const rule = rules[queue.head]!;
        if (rule.ticket === tickets[queue.head]) return rule;
        queue.head++;
      }
      if (queue.head > 0) {
        rules.length = 0;
        tickets.length = 0;
        queue.head = 0;
      }
    }
    return null;
  }
}
