'use client';
/** The bench as a page: made of the material that the server gives, and made again when that is out of date. */
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import type { Open } from '@/core/scenario/definition';
import { useLeaving } from '../draft/leaving';
import { createBench } from './create-bench';
import { Layout } from './layout';
import type { BenchMaterial, BenchPlace } from './common/material';

/** `opened` says how the form is opened at first, such as from a parent; `at` what is looked at, such as a line. */
export function BenchPage({
  material,
  opened,
  at,
}: {
  material: BenchMaterial;
  opened: Partial<Open>;
  at: BenchPlace;
}) {
  const router = useRouter();
  const [{ bench, turn }, setBench] = useState(() => ({
    bench: createBench(material, opened),
    turn: 0,
  }));
  // Fresh material is taken when the bench that is there has asked for it.
  useEffect(() => {
    if (bench.core.store.getState().handsOver === null || bench.core.material === material) return;
    // What was typed in between is saved before the bench goes.
    void bench.core.saving.saveAll().then(() => {
      const taken = bench.handedOver();
      setBench((before) => ({
        bench: createBench(material, taken.open, taken),
        turn: before.turn + 1,
      }));
    });
  }, [material]);
  useEffect(() => {
    const stop = bench.core.store.subscribe(({ handsOver }, before) => {
      if (handsOver !== null && before.handsOver === null) router.refresh();
    });
    // Structure does not need the language worker, and somebody waits to write the first label.
    if (at?.is === 'part') bench.goTo(at);
    void bench.start().then(() => at?.is !== 'part' && bench.goTo(at));
    return () => {
      stop();
      bench.stop();
    };
  }, [bench]);
  const { saving } = bench.core;
  useLeaving({
    flush: () => saving.leave(),
    unsaved: () => saving.losesOnLeaving(),
  });
  // Nothing that was drawn for the bench before writes into this one, or the other way round.
  return <Layout key={turn} bench={bench} />;
}
