'use client';
/** Which forms have records. */
import { Box } from '@chakra-ui/react';
import type { RecordsOfForm } from '@/core/workspace/overview';
import { Cell, countInWords, ListTable, TextLink } from '../kit';
import { PageHead } from '../page-head';

export function RecordCounts({
  workspace,
  forms,
}: {
  workspace: string;
  forms: readonly RecordsOfForm[];
}) {
  return (
    <>
      <PageHead workspace={workspace} section="records" title="Records" />
      <Box as="main" px="16px" py="14px" maxW="800px">
        {forms.length === 0 ? (
          <Box color="soft">
            There are no records, since there is no form yet.{' '}
            <TextLink href="/">Make a form first.</TextLink>
          </Box>
        ) : (
          <ListTable caption="Records by form" heads={['Form', 'Records', 'New record']}>
            {forms.map(({ name, title, records, released }) => (
              <tr key={name}>
                <Cell>
                  <TextLink href={`/records/${name}`} strong>
                    {title}
                  </TextLink>
                </Cell>
                <Cell>{countInWords(records)}</Cell>
                <Cell>
                  {released ? (
                    <TextLink href={`/fill/${name}`}>Fill in</TextLink>
                  ) : (
                    <>
                      no release yet · <TextLink href={`/bench/${name}`}>go to the bench</TextLink>
                    </>
                  )}
                </Cell>
              </tr>
            ))}
          </ListTable>
        )}
      </Box>
    </>
  );
}
