'use client';
/** A service: its functions, what each takes and answers from, how long it takes, whether it fails. */
import { USUAL_DELAY } from '@/core/limits';
import { Box, chakra, Flex } from '@chakra-ui/react';
import { useRouter } from 'next/navigation';
import { addressHere } from '../address';
import { useState } from 'react';
import type { Service, ServiceFunction } from '@/core/form/service';
import { call } from '../api';
import { Button, Checkbox, Labelled, Line, Mono, Notice, Select, TextArea } from '../kit';
import { PageHead } from '../page-head';
import { isName } from '@/core/form/name';
import { SavingNote, useDraft } from '../draft/use-draft';
import type { Problem } from '@/core/problems/problems';
import { ScriptProblems, Trial, useScriptProblems } from './service-trial';
import { SCALAR_OPTIONS } from '@/core/form/scalar';

interface TableInfo {
  name: string;
  title: string;
  columns: string[];
}

export function ServicePage({
  workspace,
  tables,
  service: first,
  revision,
}: {
  workspace: string;
  tables: TableInfo[];
  service: Service;
  revision: number;
}) {
  const draft = useDraft(`/api/services/${first.name}`, first, revision, (value, from) => ({
    service: value,
    from,
  }));
  const { value: service, edit } = draft;
  const [name, setName] = useState('');
  const [says, setSays] = useState<string | null>(null);
  const router = useRouter();
  const problems = useScriptProblems(service);
  const good = isName(name) && service.functions[name] === undefined;
  const add = () => {
    const [table] = tables;
    const answers: ServiceFunction['answers'] =
      table === undefined
        ? { from: 'script', script: 'return null;', gives: 'null' }
        : { from: 'table', table: table.name, where: { [table.columns[0]!]: 'key' } };
    edit({
      ...service,
      functions: {
        ...service.functions,
        [name]: { parameters: [{ name: 'key', kind: 'text' }], answers },
      },
    });
    setName('');
  };
  const remove = async () => {
    await draft.save();
    const reply =
      draft.revision === 0
        ? { ok: true as const }
        : await call('DELETE', `/api/services/${service.name}?from=${draft.revision}`);
    if (reply.ok) router.push(addressHere('/services'));
    else setSays(reply.says);
  };
  return (
    <>
      <PageHead workspace={workspace} section="services" title={service.title}>
        <SavingNote draft={draft} />
        <Button color="bad" onClick={() => void remove()}>
          Remove service
        </Button>
      </PageHead>
      <Box as="main" px="16px" py="14px" maxW="900px">
        {says !== null && <Notice tone="error">{says} It stays.</Notice>}
        <Flex gap="14px" wrap="wrap" align="end">
          <Labelled label="Title">
            <Line
              value={service.title}
              onChange={({ target }) =>
                target.value !== '' && edit({ ...service, title: target.value })
              }
            />
          </Labelled>
          <Labelled label="Answers after, ms">
            <NumberLine
              value={service.delay}
              placeholder={String(USUAL_DELAY)}
              onPut={(delay) => edit(withKey(service, 'delay', delay))}
            />
          </Labelled>
          <Labelled label="Slow one call in">
            <NumberLine
              value={service.slow?.every}
              placeholder="never"
              onPut={(every) =>
                edit(
                  withKey(
                    service,
                    'slow',
                    every === undefined || every < 1
                      ? undefined
                      : { every, delay: service.slow?.delay ?? 3000 },
                  ),
                )
              }
            />
          </Labelled>
          {service.slow !== undefined && (
            <Labelled label="A slow call takes, ms">
              <NumberLine
                value={service.slow.delay}
                onPut={(delay) =>
                  edit(
                    withKey(service, 'slow', { every: service.slow!.every, delay: delay ?? 3000 }),
                  )
                }
              />
            </Labelled>
          )}
          <Labelled label="Fails, for this reason">
            <Line
              placeholder="it does not fail"
              value={service.fails ?? ''}
              onChange={({ target }) =>
                edit(withKey(service, 'fails', target.value === '' ? undefined : target.value))
              }
            />
          </Labelled>
        </Flex>
        {Object.entries(service.functions).map(([called, made]) => (
          <Called
            key={called}
            service={service}
            problems={problems}
            called={called}
            made={made}
            tables={tables}
            onPut={(next) =>
              edit({ ...service, functions: { ...service.functions, [called]: next } })
            }
            onRemove={() => {
              const { [called]: _, ...rest } = service.functions;
              edit({ ...service, functions: rest });
            }}
          />
        ))}
        {Object.keys(service.functions).length === 0 && (
          <Box mt="14px" color="soft">
            This service has no function yet, so nothing can be called.
          </Box>
        )}
        <Flex gap="8px" mt="16px">
          <Line
            aria-label="Technical name of a new function"
            fontFamily="mono"
            placeholder="technical_name"
            value={name}
            onChange={(event) => setName(event.target.value)}
          />
          <Button disabled={!good} onClick={add}>
            Add function
          </Button>
        </Flex>
      </Box>
    </>
  );
}

function withKey<K extends keyof Service>(
  service: Service,
  key: K,
  value: Service[K] | undefined,
): Service {
  const { [key]: _, ...rest } = service;
  return (value === undefined ? rest : { ...rest, [key]: value }) as Service;
}

function NumberLine({
  value,
  placeholder,
  onPut,
}: {
  value: number | undefined;
  placeholder?: string;
  onPut: (value: number | undefined) => void;
}) {
  return (
    <Line
      width="100px"
      inputMode="numeric"
      placeholder={placeholder}
      value={value === undefined ? '' : String(value)}
      onChange={({ target }) => {
        if (/^\d{0,6}$/.test(target.value))
          onPut(target.value === '' ? undefined : Number(target.value));
      }}
    />
  );
}

interface CalledProps {
  service: Service;
  problems: readonly Problem[];
  called: string;
  made: ServiceFunction;
  tables: TableInfo[];
  onPut: (made: ServiceFunction) => void;
  onRemove: () => void;
}

function Called({ service, problems, called, made, tables, onPut, onRemove }: CalledProps) {
  const { parameters, answers } = made;
  const [parameter, setParameter] = useState('');
  const table =
    answers.from === 'table' ? tables.find((one) => one.name === answers.table) : undefined;
  const [column, asked] =
    answers.from === 'table' ? (Object.entries(answers.where)[0] ?? ['', '']) : ['', ''];
  return (
    <Box
      as="section"
      mt="16px"
      pt="8px"
      borderTopWidth="1px"
      borderColor="line"
      aria-label={`${service.name}.${called}`}
    >
      <Flex gap="10px" align="center">
        <chakra.h2 fontSize="14px" fontWeight={620}>
          <Mono>
            services.{service.name}.{called}
          </Mono>
        </chakra.h2>
        <Button
          look="text"
          color="soft"
          ml="auto"
          aria-label={`Remove ${called}`}
          onClick={onRemove}
        >
          remove
        </Button>
      </Flex>
      <Flex gap="8px" mt="6px" wrap="wrap" align="center">
        <chakra.span color="soft">takes</chakra.span>
        {parameters.map((one, i) => (
          <Flex key={one.name} gap="4px" align="center">
            <Mono>{one.name}</Mono>
            <Select
              aria-label={`Kind of ${one.name}`}
              value={one.kind}
              options={SCALAR_OPTIONS}
              onChange={({ target }) =>
                onPut({
                  ...made,
                  parameters: parameters.map((other, j) =>
                    i === j ? { ...other, kind: target.value as typeof one.kind } : other,
                  ),
                })
              }
            />
            <Button
              look="text"
              color="soft"
              aria-label={`Remove parameter ${one.name}`}
              onClick={() =>
                onPut({ ...made, parameters: parameters.filter((other) => other !== one) })
              }
            >
              ×
            </Button>
          </Flex>
        ))}
        <Line
          aria-label={`New parameter of ${called}`}
          fontFamily="mono"
          width="120px"
          placeholder="parameter"
          value={parameter}
          onChange={({ target }) => setParameter(target.value)}
        />
        <Button
          disabled={!isName(parameter) || parameters.some((one) => one.name === parameter)}
          onClick={() => {
            onPut({ ...made, parameters: [...parameters, { name: parameter, kind: 'text' }] });
            setParameter('');
          }}
        >
          Add
        </Button>
      </Flex>
      <Flex gap="8px" mt="6px" wrap="wrap" align="center">
        <chakra.span color="soft">answers from</chakra.span>
        <Select
          aria-label={`What ${called} answers from`}
          value={answers.from}
          options={[
            { key: 'table', label: 'a table' },
            { key: 'script', label: 'a script' },
          ]}
          onChange={({ target }) =>
            onPut({
              ...made,
              answers:
                target.value === 'script'
                  ? { from: 'script', script: 'return null;', gives: 'null' }
                  : {
                      from: 'table',
                      table: tables[0]?.name ?? '',
                      where: { [tables[0]?.columns[0] ?? 'code']: parameters[0]?.name ?? 'key' },
                    },
            })
          }
        />
        {answers.from === 'table' && (
          <>
            <Select
              aria-label="Table"
              value={answers.table}
              options={tables.map((one) => ({ key: one.name, label: one.title }))}
              onChange={({ target }) =>
                onPut({
                  ...made,
                  answers: {
                    ...answers,
                    table: target.value,
                    where: {
                      [tables.find((one) => one.name === target.value)!.columns[0]!]: asked,
                    },
                  },
                })
              }
            />
            <chakra.span color="soft">where</chakra.span>
            <Select
              aria-label="Column"
              value={column}
              options={(table?.columns ?? []).map((key) => ({ key, label: key }))}
              onChange={({ target }) =>
                onPut({ ...made, answers: { ...answers, where: { [target.value]: asked } } })
              }
            />
            <chakra.span color="soft">is</chakra.span>
            <Select
              aria-label="Parameter"
              value={asked}
              options={parameters.map((one) => ({ key: one.name, label: one.name }))}
              onChange={({ target }) =>
                onPut({ ...made, answers: { ...answers, where: { [column]: target.value } } })
              }
            />
            <Checkbox
              label="all that fit"
              on={answers.many === true}
              onSet={(all) => {
                const { many: _, ...first } = answers;
                onPut({ ...made, answers: all ? { ...first, many: true } : first });
              }}
            />
          </>
        )}
      </Flex>
      {answers.from === 'script' && (
        <Box mt="6px">
          <TextArea
            aria-label={`Script of ${called}`}
            rows={5}
            value={answers.script}
            onChange={({ target }) =>
              onPut({ ...made, answers: { ...answers, script: target.value } })
            }
          />
          <Labelled label="Type of what it returns">
            <Line
              fontFamily="mono"
              width="320px"
              value={answers.gives}
              onChange={({ target }) =>
                onPut({ ...made, answers: { ...answers, gives: target.value } })
              }
            />
          </Labelled>
          <ScriptProblems problems={problems} called={called} />
          <Notice tone="info" mt="6px">
            It has its parameters by name, and <Mono>tables</Mono>. What it returns is the answer;
            it cannot wait.
          </Notice>
        </Box>
      )}
      <Trial service={service} called={called} parameters={parameters} />
    </Box>
  );
}
