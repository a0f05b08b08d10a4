'use client';
/** Which calls were open when, on the clock of the session: what overlapped, what was answered in another order, what was superseded. */
import { CustomChart } from 'echarts/charts';
import { GridComponent, TooltipComponent } from 'echarts/components';
import { init, use, type ECharts } from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { Box } from '@chakra-ui/react';
import { useEffect, useRef } from 'react';
import { callsOn, type CallSpan } from '@/core/debugging/calls';
import type { Tape } from '@/core/tape/tape';
import { valueInWords } from '@/core/tape/words';
import type { Bench } from '../create-bench';

use([CustomChart, GridComponent, TooltipComponent, CanvasRenderer]);

export function CallsPane({ bench, tape }: { bench: Bench; tape: Tape }) {
  const host = useRef<HTMLDivElement>(null);
  const spans = callsOn(tape);
  const key = JSON.stringify(spans);
  useEffect(() => {
    if (host.current === null || spans.length === 0) return;
    const chart = init(host.current);
    draw(chart, spans);
    chart.on('click', ({ dataIndex }) => {
      void bench.tape.standOn({ entry: spans[dataIndex]!.entry, detail: null });
    });
    const resized = new ResizeObserver(() => chart.resize());
    resized.observe(host.current);
    return () => {
      resized.disconnect();
      chart.dispose();
    };
  }, [key, bench]);
  if (spans.length === 0)
    return (
      <Box color="soft" fontSize="12.5px">
        No service has been called, and nothing has waited.
      </Box>
    );
  return (
    <Box fontSize="12.5px" height="100%" display="flex" flexDirection="column">
      <b>Calls over time</b>
      <Box
        ref={host}
        flex="1"
        minH="120px"
        role="img"
        aria-label={spans.map(spanInWords).join('; ')}
      />
    </Box>
  );
}

export function spanInWords({ name, args, from, to, how }: CallSpan): string {
  const asked = name === 'after' ? `${String(args)} ms` : valueInWords(args);
  const end =
    to === null
      ? 'still waits'
      : how === 'superseded'
        ? `superseded after ${to - from} ms`
        : `${how} after ${to - from} ms`;
  return `${name} ${asked}: ${end}`;
}

function colour(name: string): string {
  return getComputedStyle(document.documentElement)
    .getPropertyValue(`--tavro-colors-${name}`)
    .trim();
}

function draw(chart: ECharts, spans: readonly CallSpan[]): void {
  const start = Math.min(...spans.map(({ from }) => from));
  const end = Math.max(...spans.map(({ from, to }) => to ?? from), start + 1);
  const fill = { answered: colour('act'), failed: colour('bad'), superseded: colour('soft') };
  chart.setOption({
    grid: { left: 8, right: 12, top: 6, bottom: 22, containLabel: true },
    tooltip: {
      formatter: ({ dataIndex }: { dataIndex: number }) => spanInWords(spans[dataIndex]!),
    },
    xAxis: {
      type: 'value',
      min: 0,
      max: end - start,
      axisLabel: { formatter: '{value} ms' },
    },
    yAxis: { type: 'category', inverse: true, data: spans.map(({ name }) => name) },
    series: [
      {
        type: 'custom',
        data: spans.map(({ from, to }, i) => [from - start, (to ?? end) - start, i]),
        encode: { x: [0, 1], y: 2 },
        renderItem: (
          params: { dataIndex: number },
          api: {
            value(at: number): number;
            coord(point: [number, number]): [number, number];
            size(of: [number, number]): [number, number];
          },
        ) => {
          const span = spans[params.dataIndex]!;
          const [x, y] = api.coord([api.value(0), api.value(2)]);
          const [right] = api.coord([api.value(1), api.value(2)]);
          const height = Math.min(16, api.size([0, 1])[1] * 0.6);
          return {
            type: 'rect',
            shape: { x, y: y - height / 2, width: Math.max(2, right - x), height },
            style: { fill: span.how === null ? colour('said-edge') : fill[span.how] },
          };
        },
      },
    ],
  });
}
