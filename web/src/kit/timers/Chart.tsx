import { Text } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';

/** A line of a chart: points in the units of its axes. */
interface Line {
  readonly label: string;
  readonly points: readonly { readonly x: number; readonly y: number }[];
}

interface ChartProps {
  /** What it shows, in words, for those who do not see it. */
  readonly label: string;
  readonly x: string;
  readonly y: string;
  readonly isLogarithmic?: boolean;
  readonly line: Line;
  /** A point that is where the board stands. */
  readonly here?: { readonly x: number; readonly y: number };
}

let fetched: Promise<typeof import('chart.js')> | null = null;
/** Chart.js, fetched when a chart is first shown; a failed fetch is tried again by the next. */
const chartJs = (): Promise<typeof import('chart.js')> => {
  fetched ??= import('chart.js').catch((e: unknown) => {
    fetched = null;
    throw e;
  });
  return fetched;
};

type ChartJs = typeof import('chart.js');

/** Draws the chart on a canvas, in the colours that the page has now. Returns how to take it away. */
function drawn(
  element: HTMLCanvasElement,
  chart: ChartJs,
  { x, y, isLogarithmic, line, here }: ChartProps,
): () => void {
  const { Chart: Drawn, LineController, LineElement, LinearScale, LogarithmicScale, PointElement } = chart;
  Drawn.register(LineController, LineElement, LinearScale, LogarithmicScale, PointElement);
  const style = getComputedStyle(element);
  const themed = (name: string): string => style.getPropertyValue(`--sb-colors-${name}`).trim() || '#14201B';
  const axis = (title: string) => ({
    type: isLogarithmic ? ('logarithmic' as const) : ('linear' as const),
    title: { display: true, text: title, color: themed('soft') },
    ticks: { color: themed('soft'), maxTicksLimit: 6 },
    grid: { color: themed('line') },
  });
  const point = { backgroundColor: themed('brass'), borderColor: themed('ink'), pointRadius: 5 };
  const made = new Drawn(element, {
    type: 'line',
    data: {
      datasets: [
        { data: [...line.points], borderColor: themed('moss'), borderWidth: 2, pointRadius: 0 },
        ...(here ? [{ data: [here], ...point }] : []),
      ],
    },
    options: {
      animation: false,
      maintainAspectRatio: false,
      parsing: false,
      events: [],
      scales: { x: axis(x), y: axis(y) },
    },
  });
  return () => made.destroy();
}

/** A line chart; where it cannot be drawn, its words stay. */
export function Chart({ label, x, y, isLogarithmic = false, line, here }: ChartProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [failed, setFailed] = useState(false);
  useEffect(() => {
    let takeAway = (): void => {};
    let isGone = false;
    chartJs()
      .then((chart) => {
        if (!isGone && canvas.current)
          takeAway = drawn(canvas.current, chart, { label, x, y, isLogarithmic, line, ...(here && { here }) });
      })
      .catch(() => {
        if (!isGone) setFailed(true);
      });
    return () => {
      isGone = true;
      takeAway();
    };
  }, [label, x, y, isLogarithmic, line, here]);
  return (
    <div style={{ position: 'relative', height: 190, flex: 1, minWidth: 0 }}>
      {failed ? (
        <Text fontSize="13px">The chart could not be fetched: {label}.</Text>
      ) : (
        <canvas ref={canvas} role="img" aria-label={label} />
      )}
    </div>
  );
}
