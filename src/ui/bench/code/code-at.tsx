'use client';
/** The code of a behaviour with what is known of its lines at the moment that is looked at. */
import { useMemo, type ComponentProps } from 'react';
import { useStore } from 'zustand';
import { notesAt } from '@/core/debugging/notes';
import { placeAt } from '@/core/debugging/travel';
import { baseName } from '@/core/script/script-name';
import { linesOf } from '@/core/tape/lines';
import type { Run, Tape } from '@/core/tape/tape';
import { useRoom } from '../../use-room';
import { Code } from './code-pane';

export function CodeAt({
  bench,
  name,
  seen,
  tape,
  goTo,
}: Pick<ComponentProps<typeof Code>, 'bench' | 'name' | 'seen' | 'goTo'> & { tape: Tape }) {
  const { answers, at } = useRoom(bench.form.session, (state) => ({
    answers: state.answers,
    at: state.at,
  }));
  const { standing, detailed, sites } = useStore(bench.tape.store);
  const script = baseName(name);
  const notes = useMemo(() => {
    if (detailed === null || standing === null) return linesOf(answers[at]?.tape ?? [], script);
    const run = tape.entry(detailed.entry);
    const behaviour = run?.type === 'run' ? (run as Run).behaviour : script;
    return notesAt(detailed, standing.detail ?? detailed.details.length, sites, script, behaviour);
  }, [answers, at, script, detailed, standing, sites, tape]);
  const line = useMemo(() => {
    const place =
      detailed === null || standing?.detail == null ? null : placeAt(detailed, standing.detail);
    return place === null || place.script !== script
      ? null
      : (sites.get(place.script)?.[place.site]?.line ?? null);
  }, [detailed, standing, sites, script]);
  return <Code bench={bench} name={name} seen={seen} notes={notes} standing={line} goTo={goTo} />;
}
