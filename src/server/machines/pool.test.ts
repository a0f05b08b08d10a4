/** Forms take turns at the machines, none has all of them, and what got stuck once is known. Against engines that do as they are told. */
import { describe, expect, test } from 'vitest';
import type { Engine, Stuck } from '../../core/sandbox/engine';
import { TookTooLong } from '../../core/sandbox/cut-short';
import type { Material } from '../../core/session/material';
import type { Opening } from '../../core/session/step';
import { Busy } from '../database/turns';
import { MachinePool, type PoolOptions } from './pool';

interface Played {
  release: string;
  /** Which machine it was. */
  machine: number;
  end: (stuck?: Stuck[]) => void;
  /** Finds one to be stuck, and goes on. */
  find: (stuck: Stuck) => void;
}

/** A pool whose plays end when they are told to. */
function pool(options: Partial<PoolOptions> = {}) {
  const playing: Played[] = [];
  const loads: { machine: number; release: string; out: string[]; suspects: readonly Stuck[] }[] =
    [];
  const closed: number[] = [];
  let machines = 0;
  const make = (): Engine => {
    const machine = ++machines;
    let release = '';
    let stuck: Stuck[] = [];
    return {
      get stuck() {
        return stuck;
      },
      load: (material: Material, suspects: readonly Stuck[] = []) => {
        release = material.form.title;
        stuck = [];
        loads.push({
          machine,
          release,
          out: material.scripts.filter(({ code }) => code === null).map(({ name }) => name),
          suspects,
        });
        if (release === 'stuck at load' && material.scripts[0]!.code !== null)
          stuck = [{ behaviour: 'a', line: 3 }];
        return Promise.resolve();
      },
      playInBrief: () =>
        new Promise((resolve) => {
          playing.push({
            release,
            machine,
            find: (found) => void (stuck = [...stuck, found]),
            end: (found = []) => {
              stuck = [...stuck, ...found];
              resolve([]);
            },
          });
        }),
      close: () => void closed.push(machine),
    } as unknown as Engine;
  };
  const made = new MachinePool(make, {
    size: 3,
    mostWaitingOfOne: 4,
    mostWaiting: 6,
    patience: 10_000,
    limit: 10_000,
    ...options,
  });
  let ids = 0;
  const releases = new Map<string, number>();
  const play = (form: string, title = form) => {
    if (!releases.has(title)) releases.set(title, ++ids);
    const material = {
      form: { name: form, title },
      scripts: [{ name: 'a', code: '' }],
      modules: [],
    } as unknown as Material;
    const over = made.play({ id: title, form: material.form.name, material }, {} as Opening, []);
    // Some are never ended, and refused when their test is long over.
    over.catch(() => undefined);
    return over;
  };
  const settled = () => new Promise((resolve) => setTimeout(resolve, 5));
  return { play, playing, loads, closed, settled, made, machines: () => machines };
}

describe('machines', () => {
  test('one form never has all of them, so that another is served at once', async () => {
    const { play, playing, settled } = pool();
    const all = [1, 2, 3, 4].map(() => play('a'));
    await settled();
    expect(playing.map(({ release }) => release)).toEqual(['a', 'a']);
    const other = play('b');
    await settled();
    expect(playing.map(({ release }) => release)).toEqual(['a', 'a', 'b']);
    for (let done = 0; done < 5; done++) {
      playing[done]!.end();
      await settled();
    }
    await Promise.all([...all, other]);
    expect(new Set(playing.map(({ machine }) => machine)).size).toBe(3);
  });

  test('forms that wait take turns, however many of one there are', async () => {
    const { play, playing, settled } = pool({ size: 2, mostWaitingOfOne: 10, mostWaiting: 20 });
    const all = [play('a'), play('b'), play('a'), play('a'), play('a'), play('c'), play('d')];
    for (let done = 0; done < all.length; done++) {
      await settled();
      playing[done]!.end();
    }
    await Promise.all(all);
    expect(
      playing
        .map(({ release }) => release)
        .slice(0, 5)
        .toSorted(),
    ).toEqual(['a', 'a', 'b', 'c', 'd']);
  });

  test('are loaded once for submissions of one release, and again for another', async () => {
    const { play, playing, loads, settled } = pool();
    for (const [i, title] of ['a', 'a', 'a2', 'a'].entries()) {
      const over = play('a', title);
      await settled();
      playing[i]!.end();
      await over;
    }
    expect(loads.map(({ release }) => release)).toEqual(['a', 'a2', 'a']);
  });

  test('that fail or take too long are ended, and another takes their place', async () => {
    const { play, playing, closed, settled, machines } = pool({ limit: 30 });
    await expect(play('a')).rejects.toBeInstanceOf(TookTooLong);
    expect(closed).toEqual([1]);
    const over = play('a');
    await settled();
    playing[1]!.end();
    await over;
    expect(machines()).toBe(2);
  });
});

describe('too many', () => {
  test('of one form are refused, while others still wait', async () => {
    const { play, settled } = pool();
    const kept = Array.from({ length: 6 }, () => play('a'));
    await settled();
    await expect(play('a')).rejects.toBeInstanceOf(Busy);
    void play('b');
    void play('b');
    for (const one of kept) one.catch(() => undefined);
    await settled();
    void play('c').catch(() => undefined);
    await expect(play('d')).rejects.toMatchObject({ retryAfter: 5 });
  });

  test('who waits too long is told when to come again', async () => {
    const { play, settled } = pool({ size: 1, patience: 30 });
    void play('a');
    await settled();
    await expect(play('b')).rejects.toMatchObject({ retryAfter: 10 });
  });
});

describe('a release whose behaviour got stuck', () => {
  test('in a run, is tried with it again, as a suspect', async () => {
    const { play, playing, loads, settled } = pool();
    const first = play('a');
    await settled();
    playing[0]!.end([{ behaviour: 'a', line: 7 }]);
    await first;
    const second = play('a');
    await settled();
    playing[1]!.end();
    await second;
    expect(loads).toEqual([
      { machine: 1, release: 'a', out: [], suspects: [] },
      { machine: 1, release: 'a', out: [], suspects: [{ behaviour: 'a', line: 7 }] },
    ]);
  });

  test('is known although there was no time to look for the rest: the next one goes on from there', async () => {
    const { play, playing, loads, settled } = pool({ limit: 60 });
    const first = play('a');
    await settled();
    playing[0]!.find({ behaviour: 'a', line: 7 });
    await expect(first).rejects.toBeInstanceOf(TookTooLong);
    void play('a');
    await settled();
    expect(loads.at(-1)!.suspects).toEqual([{ behaviour: 'a', line: 7 }]);
  });

  test('at its top level, has it out from the start', async () => {
    const { play, playing, loads, settled, made } = pool();
    for (let i = 0; i < 2; i++) {
      const over = play('stuck at load');
      await settled();
      playing[i]!.end();
      await over;
      // The next one finds no machine that has it.
      if (i === 0) made.close();
    }
    expect(loads.map(({ out }) => out)).toEqual([[], ['a']]);
  });
});
