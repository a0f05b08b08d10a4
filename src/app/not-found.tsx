import Link from 'next/link';

export default function NotFound() {
  return (
    <main style={{ padding: 20 }}>
      <h1>There is nothing here</h1>
      <p>
        The form or record does not exist. <Link href="/">All forms</Link>
      </p>
    </main>
  );
}
