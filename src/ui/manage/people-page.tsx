'use client';
/** The people a form can be opened as, their roles, and what holds for the whole workspace. */
import { counted } from '@/core/counted';
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { nameFor } from '@/core/structure/edit';
import type { NumberStyle } from '@/core/form/number-style';
import { DATE_STYLES, showDate, STYLES, type DateStyle } from '@/core/form/date-style';
import { Button, Checkbox, Labelled, Line, Mono, Select } from '../kit';
import type { Head, KeptFillings } from '@/core/workspace/head';
import { KEPT_FILLINGS, KEPT_FILLINGS_DAYS } from '@/core/limits';
import { PageHead } from '../page-head';
import { SavingNote, useDraft } from '../draft/use-draft';

export function PeoplePage({ head: first, revision }: { head: Head; revision: number }) {
  const draft = useDraft('/api/people', first, revision, (value, from) => ({ head: value, from }));
  const { value: head, edit } = draft;
  const { roles, people } = head;
  return (
    <>
      <PageHead workspace={head.title} section="people" title="People, roles and workspace">
        <SavingNote draft={draft} />
      </PageHead>
      <Flex as="main" px="16px" py="14px" gap="40px" wrap="wrap">
        <Box as="section" aria-labelledby="people">
          <chakra.h2 id="people" fontSize="15px" fontWeight={640}>
            People
          </chakra.h2>
          {people.map((person, i) => (
            <Flex key={person.key} gap="2px 8px" mt="6px" align="center" wrap="wrap">
              <Line
                aria-label={`Name of ${person.key}`}
                value={person.name}
                onChange={({ target }) =>
                  edit({
                    ...head,
                    people: people.map((other, j) =>
                      i === j ? { ...other, name: target.value } : other,
                    ),
                  })
                }
              />
              <Flex
                as="fieldset"
                aria-label={`Roles of ${person.name}`}
                gap="10px"
                wrap="wrap"
                border="0"
                p="0"
                m="0"
              >
                {roles.map(({ key, label }) => {
                  const has = person.roles.includes(key);
                  const held = roles
                    .map((role) => role.key)
                    .filter((role) => (role === key ? !has : person.roles.includes(role)));
                  // Somebody without any role could not be told from others by a script.
                  return (
                    <Checkbox
                      key={key}
                      title={
                        has && held.length === 0 ? 'A person has at least one role' : undefined
                      }
                      label={label}
                      on={has}
                      disabled={has && held.length === 0}
                      onSet={() =>
                        edit({
                          ...head,
                          people: people.map((other, j) =>
                            i === j ? { ...other, roles: held } : other,
                          ),
                        })
                      }
                    />
                  );
                })}
              </Flex>
              <Mono color="soft" minWidth="72px">
                {person.key}
              </Mono>
              <Button
                look="text"
                color="soft"
                disabled={people.length === 1}
                aria-label={`Remove ${person.name}`}
                onClick={() =>
                  edit({ ...head, people: people.filter((other) => other !== person) })
                }
              >
                remove
              </Button>
            </Flex>
          ))}
          <Adder
            what="person"
            onAdd={(name) =>
              edit({
                ...head,
                people: [
                  ...people,
                  {
                    key: nameFor(name, new Set(people.map((person) => person.key))),
                    name,
                    roles: [roles[0]!.key],
                  },
                ],
              })
            }
          />
        </Box>
        <Box as="section" aria-labelledby="roles">
          <chakra.h2 id="roles" fontSize="15px" fontWeight={640}>
            Roles
          </chakra.h2>
          {roles.map((role, i) => {
            const held = people.filter((person) => person.roles.includes(role.key)).length;
            return (
              <Flex key={role.key} gap="2px 8px" mt="6px" align="center" wrap="wrap">
                <Line
                  aria-label={`Label of ${role.key}`}
                  value={role.label}
                  onChange={({ target }) =>
                    edit({
                      ...head,
                      roles: roles.map((other, j) =>
                        i === j ? { ...other, label: target.value } : other,
                      ),
                    })
                  }
                />
                <Mono color="soft" minWidth="72px">
                  {role.key}
                </Mono>
                <chakra.span color="soft" minWidth="64px">
                  {counted(held, 'person', 'people')}
                </chakra.span>
                <Button
                  look="text"
                  color="soft"
                  disabled={held > 0}
                  title={held > 0 ? 'Somebody has this role' : undefined}
                  aria-label={`Remove ${role.label}`}
                  onClick={() => edit({ ...head, roles: roles.filter((other) => other !== role) })}
                >
                  remove
                </Button>
              </Flex>
            );
          })}
          <Adder
            what="role"
            onAdd={(label) =>
              edit({
                ...head,
                roles: [
                  ...roles,
                  { key: nameFor(label, new Set(roles.map((role) => role.key))), label },
                ],
              })
            }
          />
        </Box>
        <Settings head={head} onEdit={edit} />
      </Flex>
    </>
  );
}

/** What holds for the workspace as a whole. */
function Settings({ head, onEdit }: { head: Head; onEdit: (head: Head) => void }) {
  return (
    <Box as="section" aria-labelledby="workspace">
      <chakra.h2 id="workspace" fontSize="15px" fontWeight={640} mb="6px">
        Workspace
      </chakra.h2>
      <Labelled label="Title">
        <Line
          width="260px"
          maxLength={120}
          value={head.title}
          onChange={({ target }) =>
            target.value.trim() !== '' && onEdit({ ...head, title: target.value })
          }
        />
      </Labelled>
      <Box mt="8px">
        <Labelled label="Dates are written as">
          <Select
            value={head.dates ?? 'iso'}
            options={DATE_STYLES.map((style) => ({
              key: style,
              label: `${STYLES[style].looks}, such as ${showDate('2031-05-02', style)}`,
            }))}
            onChange={({ target }) => onEdit({ ...head, dates: target.value as DateStyle })}
          />
        </Labelled>
      </Box>
      <Box mt="8px">
        <Labelled label="Numbers are written as">
          <Select
            value={head.numbers ?? 'point'}
            options={[
              { key: 'point', label: 'with a decimal point, such as 1,234.5' },
              { key: 'comma', label: 'with a decimal comma, such as 1.234,5' },
            ]}
            onChange={({ target }) => onEdit({ ...head, numbers: target.value as NumberStyle })}
          />
        </Labelled>
      </Box>
      <Kept head={head} onEdit={onEdit} />
    </Box>
  );
}

const KEPT_AT_FIRST: KeptFillings = { most: 500, days: 90, masked: true };

/** Whether what people do in filling-ins is kept, to be replayed before a release. */
function Kept({ head, onEdit }: { head: Head; onEdit: (head: Head) => void }) {
  const { fillings } = head;
  const put = (changes: Partial<KeptFillings>) =>
    onEdit({ ...head, fillings: { ...KEPT_AT_FIRST, ...fillings, ...changes } });
  /** Of what is typed only a number that can be is taken. */
  const number = (key: 'most' | 'days', most: number) => (
    <Line
      type="number"
      width="90px"
      min={1}
      max={most}
      value={String(fillings![key])}
      onChange={({ target: { valueAsNumber: typed } }) =>
        Number.isInteger(typed) && typed >= 1 && typed <= most && put({ [key]: typed })
      }
    />
  );
  return (
    <Box mt="14px" maxW="340px">
      <Checkbox
        label="Keep the steps of filling-ins"
        on={fillings !== undefined}
        onSet={() => {
          if (fillings === undefined) return put({});
          const { fillings: _, ...rest } = head;
          onEdit(rest);
        }}
      />
      <Box color="soft" fontSize="13px">
        {fillings === undefined
          ? 'Turned on, what people did is replayed before a release, and what would end differently is listed.'
          : 'They are replayed before a release. They go with their record, and all at once when this is turned off.'}
      </Box>
      {fillings !== undefined && (
        <Flex gap="14px" mt="6px" wrap="wrap" align="end">
          <Labelled label="Of each form">{number('most', KEPT_FILLINGS)}</Labelled>
          <Labelled label="Days">{number('days', KEPT_FILLINGS_DAYS)}</Labelled>
          <Checkbox
            label="Mask texts"
            title="Letters become x, digits 0; numbers, dates and choices stay"
            on={fillings.masked}
            onSet={() => put({ masked: !fillings.masked })}
          />
        </Flex>
      )}
    </Box>
  );
}

function Adder({ what, onAdd }: { what: string; onAdd: (text: string) => void }) {
  const [text, setText] = useState('');
  const add = () => {
    if (text.trim() === '') return;
    onAdd(text.trim());
    setText('');
  };
  return (
    <Flex gap="8px" mt="10px">
      <Line
        aria-label={`Name of a new ${what}`}
        placeholder={`New ${what}`}
        value={text}
        onChange={(event) => setText(event.target.value)}
        onKeyDown={(event) => event.key === 'Enter' && add()}
      />
      <Button disabled={text.trim() === ''} onClick={add}>
        Add {what}
      </Button>
    </Flex>
  );
}
