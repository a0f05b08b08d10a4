'use client';
/** A page could not be made; most often the database is gone for a moment. */
export default function PageError({ reset }: { error: Error; reset: () => void }) {
  return (
    <main style={{ padding: 20 }}>
      <h1>This page could not be opened</h1>
      <p>The server or its database is out of reach. Nothing you saved is lost.</p>
      <button type="button" onClick={reset}>
        Try again
      </button>
    </main>
  );
}
