import type { Metadata } from 'next';
import { readHead, readTables } from '@/server/content/read';
import { Tables } from '@/ui/manage/tables';
import { drawn } from '@/app/drawn';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Tables' };

export default function Page() {
  return drawn(async () => {
    const [head, tables] = await Promise.all([readHead(), readTables()]);
    return (
      <Tables
        workspace={head.title}
        tables={tables.map(({ name, title, rows, columns }) => ({
          name,
          title,
          rows: rows.length,
          columns: columns.map((column) => column.label ?? column.name),
        }))}
      />
    );
  });
}
