'use client';
/**
 * The form as a map: parts that are read, the behaviours that read them, and the parts these steer, in three columns. What
 * several behaviours steer, and values that come round to themselves, stand out in colour and are said in words.
 */
import { Box, chakra, Flex } from '@chakra-ui/react';
import { GraphChart } from 'echarts/charts';
import { GridComponent, TooltipComponent } from 'echarts/components';
import { init, use, type ECharts } from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { FormMap, MapArrow } from '@/core/language/map';
import { Tape } from '@/core/tape/tape';
import { Button, Mono, Region } from '../../kit';
import { COLUMNS, HEIGHT, layOut, steeredOnTape, WIDTH, type Drawn } from './layout';
import type { Bench } from '../create-bench';
import { useRoom } from '../../use-room';
import { useHeads, useMaterial } from '../common/use-bench';
import { namesFor, placeInWords } from '@/core/tape/words';
import { PaneHead } from '../common/pane-parts';

use([GraphChart, GridComponent, TooltipComponent, CanvasRenderer]);

export function MapPane({ bench }: { bench: Bench }) {
  const material = useMaterial(bench);
  const { behaviours, checked } = useRoom(bench.code, (state) => ({
    behaviours: state.behaviours,
    checked: state.checked,
  }));
  const answers = useRoom(bench.form.session, (state) => state.answers);
  const heads = useHeads(bench);
  const [map, setMap] = useState<FormMap | null>(null);
  const [chosen, setChosen] = useState<string | null>(null);
  useEffect(() => {
    // Before that the worker does not know all of them.
    if (!checked) return;
    let here = true;
    void bench.core
      .languageWorker()
      .map()
      .then((read) => {
        if (here) setMap(read);
      });
    return () => {
      here = false;
    };
  }, [bench, behaviours, checked]);
  const names = useMemo(() => namesFor(material.form, heads, material.people), [material, heads]);
  const onTape = useMemo(
    () => steeredOnTape(new Tape(answers.flatMap(({ tape }) => tape))),
    [answers],
  );
  if (map === null) return <Box p="14px">Reading the behaviours…</Box>;
  if (map.behaviours.length === 0)
    return <Box p="14px">No behaviour is on, so there is nothing to draw yet.</Box>;
  const titleOf = (name: string) => map.behaviours.find((one) => one.name === name)?.title ?? name;
  const behavioursAt = (of: string, arrows: readonly MapArrow[]) =>
    arrows
      .filter((arrow) => arrow.part === of)
      .map((arrow) => ({
        key: arrow.behaviour,
        text: `${titleOf(arrow.behaviour)}: ${arrow.aspects.join(', ')}`,
        go: () => bench.code.open(arrow.behaviour),
      }));
  const part = chosen?.startsWith('part:') === true ? chosen.slice(5) : null;
  const behaviour = chosen?.startsWith('behaviour:') === true ? chosen.slice(10) : null;
  return (
    <Flex direction="column" flex="1" minH={0}>
      <PaneHead gap="14px" color="soft" fontSize="12.5px" align="baseline">
        <span>read → behaviour → steered</span>
        {map.conflicts.length === 0 && map.circles.length === 0 && (
          <span>no conflicts, no circles</span>
        )}
        {map.conflicts.map(({ part: of, aspect, behaviours: by }) => (
          <chakra.span key={`${of}.${aspect}`} color="bad">
            × {names.part(of)}: {aspect} is steered by {by.map(titleOf).join(' and ')}
          </chakra.span>
        ))}
        {map.circles.map((round) => (
          <chakra.span key={round.join('>')} color="bad">
            ↻{' '}
            {round
              .map((step, i) => (i % 2 === 0 ? placeInWords(step, names) : titleOf(step)))
              .join(' → ')}
          </chakra.span>
        ))}
      </PaneHead>
      <Chart map={map} chosen={chosen} names={names.part} onChoose={setChosen} />
      <Region
        px="14px"
        py="8px"
        borderTopWidth="1px"
        borderColor="line"
        fontSize="13px"
        maxH="38%"
        aria-label="Who reads and steers what"
      >
        {part !== null ? (
          <>
            <b>{names.part(part)}</b> <Mono color="soft">{part}</Mono>
            {!part.includes('.') && (
              <Button look="text" ml="8px" onClick={() => bench.form.reveal(part)}>
                Show it in the live form
              </Button>
            )}
            <Said what="steered by" items={behavioursAt(part, map.steers)} />
            <Said what="read by" items={behavioursAt(part, map.reads)} />
            <Said
              what="steered in this session by"
              items={(onTape.get(part) ?? []).map(({ behaviour: by, aspects, line }) => ({
                key: by,
                text: `${names.behaviour(by)}: ${aspects.join(', ')}`,
                go: () => bench.code.goTo(by, line),
              }))}
            />
          </>
        ) : behaviour !== null ? (
          <>
            <b>{titleOf(behaviour)}</b>
            <Button look="text" ml="8px" onClick={() => bench.code.open(behaviour)}>
              Open it
            </Button>
            <Said
              what="steers"
              items={map.steers
                .filter((arrow) => arrow.behaviour === behaviour)
                .map((arrow) => ({
                  key: arrow.part,
                  text: `${names.part(arrow.part)}: ${arrow.aspects.join(', ')}`,
                  go: () => setChosen(`part:${arrow.part}`),
                }))}
            />
            <Said
              what="reads"
              items={map.reads
                .filter((arrow) => arrow.behaviour === behaviour)
                .map((arrow) => ({
                  key: arrow.part,
                  text: names.part(arrow.part),
                  go: () => setChosen(`part:${arrow.part}`),
                }))}
            />
          </>
        ) : (
          <Flex gap="14px" wrap="wrap" align="baseline">
            <chakra.span color="soft">Choose a behaviour or a part:</chakra.span>
            {map.behaviours.map(({ name, title }) => (
              <Button key={name} look="text" onClick={() => setChosen(`behaviour:${name}`)}>
                {title}
              </Button>
            ))}
          </Flex>
        )}
      </Region>
    </Flex>
  );
}

function Said({
  what,
  items,
}: {
  what: string;
  items: readonly { key: string; text: string; go: () => void }[];
}) {
  return (
    <Box color="soft">
      {what}{' '}
      {items.length === 0
        ? 'nothing'
        : items.map(({ key, text, go }, i) => (
            <span key={key}>
              {i > 0 && ' · '}
              <Button look="text" onClick={go}>
                {text}
              </Button>
            </span>
          ))}
    </Box>
  );
}

function Chart({
  map,
  chosen,
  names,
  onChoose,
}: {
  map: FormMap;
  chosen: string | null;
  names: (part: string) => string;
  onChoose: (id: string) => void;
}) {
  const host = useRef<HTMLDivElement>(null);
  const chart = useRef<ECharts | null>(null);
  useEffect(() => {
    const made = init(host.current!);
    chart.current = made;
    const watch = new ResizeObserver(() => made.resize());
    watch.observe(host.current!);
    return () => {
      watch.disconnect();
      made.dispose();
    };
  }, []);
  useEffect(() => {
    const made = chart.current!;
    const onClick = (event: { data?: unknown }) => {
      const id = (event.data as Drawn['nodes'][number] | undefined)?.id;
      if (id !== undefined) onChoose(id.replace(/^(?:read|steered):/, 'part:'));
    };
    made.on('click', onClick);
    return () => {
      made.off('click', onClick);
    };
  }, [onChoose]);
  const drawn = useMemo(() => layOut(map, names), [map, names]);
  useEffect(() => {
    const colour = (token: string) =>
      getComputedStyle(document.documentElement).getPropertyValue(`--tavro-colors-${token}`).trim();
    // What is left beside the outer columns, for the names of parts.
    const room = (host.current!.clientWidth * COLUMNS.read) / WIDTH - 14;
    const near = (id: string) => chosen === null || isNear(id, chosen, drawn);
    chart.current!.setOption(
      {
        animation: false,
        tooltip: {
          formatter: (of: { data: { says?: string } }) => of.data.says ?? '',
          backgroundColor: colour('sheet'),
          borderColor: colour('line'),
          textStyle: { color: colour('ink'), fontSize: 12 },
        },
        grid: { left: 0, right: 0, top: 4, bottom: 4 },
        xAxis: { type: 'value', show: false, min: 0, max: WIDTH },
        yAxis: { type: 'value', show: false, min: 0, max: HEIGHT, inverse: true },
        series: [
          {
            type: 'graph',
            // On axes that nobody sees: the columns keep their places and nothing is stretched.
            coordinateSystem: 'cartesian2d',
            label: {
              show: true,
              fontFamily: 'Atkinson Hyperlegible Next Variable',
              fontSize: 12,
              color: colour('ink'),
            },
            data: drawn.nodes.map((node) => ({
              ...node,
              name: node.id,
              value: [node.x, node.y],
              symbol: node.sort === 'behaviour' ? 'roundRect' : 'circle',
              symbolSize:
                node.sort === 'behaviour' ? [Math.max(70, node.label.length * 6.4), 22] : 8,
              itemStyle: {
                color: node.bad
                  ? colour('bad')
                  : node.sort === 'behaviour'
                    ? colour('act-ground')
                    : colour('said'),
                borderColor: node.bad ? colour('bad') : colour('act'),
                borderWidth: node.sort === 'behaviour' ? 1 : 0,
                opacity: near(node.id) ? 1 : 0.2,
              },
              label: {
                formatter: node.bad ? `× ${node.label}` : node.label,
                position:
                  node.sort === 'behaviour' ? 'inside' : node.sort === 'read' ? 'left' : 'right',
                color: node.bad ? colour('bad') : colour('ink'),
                opacity: near(node.id) ? 1 : 0.3,
                ...(node.sort === 'behaviour' ? {} : { width: room, overflow: 'truncate' }),
              },
            })),
            links: drawn.links.map((link) => ({
              ...link,
              symbol: ['none', 'arrow'],
              symbolSize: 6,
              lineStyle: {
                color: link.bad
                  ? colour('bad')
                  : link.source.startsWith('behaviour:')
                    ? colour('said')
                    : colour('edge'),
                width: link.bad ? 2 : 1,
                curveness: 0,
                opacity: chosen === null ? 0.75 : touches(link, chosen) ? 1 : 0.08,
              },
            })),
          },
        ],
      },
      { notMerge: true },
    );
  }, [drawn, chosen]);
  const most = Math.max(
    map.behaviours.length * 2,
    drawn.nodes.filter(({ sort }) => sort === 'read').length,
    drawn.nodes.filter(({ sort }) => sort === 'steered').length,
  );
  return (
    <Box flex="1" minH="120px" overflowY="auto">
      <Box
        ref={host}
        height="100%"
        minH={`${most * 19 + 8}px`}
        role="img"
        aria-label={`Map of ${map.behaviours.length} behaviours. What it shows is said below.`}
        data-testid="map"
      />
    </Box>
  );
}

const meant = (id: string) => id.replace(/^(?:read|steered):/, 'part:');
const touches = (link: { source: string; target: string }, chosen: string) =>
  meant(link.source) === chosen || meant(link.target) === chosen;

function isNear(id: string, chosen: string, { links }: Drawn): boolean {
  return (
    meant(id) === chosen ||
    links.some((link) => touches(link, chosen) && (link.source === id || link.target === id))
  );
}
