'use client';
import { useRouter } from 'next/navigation';
import { useTransition } from 'react';

/** A page could not be made; most often the database is gone for a moment. */
export default function PageError({ reset }: { error: Error; reset: () => void }) {
  const router = useRouter();
  const [trying, startTrying] = useTransition();
  // The server makes the page again; only then is it drawn again.
  const again = () =>
    startTrying(() => {
      router.refresh();
      reset();
    });
  return (
    <main style={{ padding: 20 }}>
      <h1>This page could not be opened</h1>
      <p>
        The server could not make it. Its database may be out of reach for a moment. Nothing you
        saved is lost.
      </p>
      <button type="button" disabled={trying} onClick={again}>
        {trying ? 'Trying…' : 'Try again'}
      </button>
    </main>
  );
}
