import {
  CategoryScale,
  type ChartData,
  Chart as ChartJs,
  type ChartOptions,
  LinearScale,
  LineElement,
  PointElement,
  Tooltip,
} from 'chart.js';
import { useMemo } from 'react';
import { Line } from 'react-chartjs-2';
import { useTheme } from './theme.ts';

ChartJs.register(CategoryScale, LinearScale, LineElement, PointElement, Tooltip);
ChartJs.defaults.font.family = '"Martian Mono", ui-monospace, monospace';
ChartJs.defaults.font.size = 11;

export interface Series {
  label: string;
  values: (number | null)[];
  /** A CSS variable of the theme. */
  colour: string;
  stepped?: boolean;
  dashed?: boolean;
  points?: boolean;
  pointColours?: string[];
}

const css = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();

interface Props {
  labels: string[];
  series: Series[];
  says: string;
  unit: string;
  heightPx?: number;
  /** Top of the scale; what is above it is cut off. */
  most?: number;
  onPoint?: (index: number) => void;
}

/** A line chart in the workshop's own hand; `says` is what it shows, for who cannot see it. */
export function LineChart({ labels, series, says, unit, heightPx = 260, most, onPoint }: Props) {
  const theme = useTheme();
  // Compared by what they say: a new list of the same values is no reason to draw again.
  const content = JSON.stringify([labels, series]);
  const [data, options] = useMemo(() => {
    void theme; // the colours below are read from the theme
    const [labels, series] = JSON.parse(content) as [string[], Series[]];
    const colours = { ink: css('--ink'), soft: css('--soft'), rule: css('--rule') };
    const made: ChartData<'line'> = {
      labels,
      datasets: series.map((one) => ({
        label: one.label,
        data: one.values,
        borderColor: css(one.colour),
        backgroundColor: one.pointColours ?? css(one.colour),
        pointBackgroundColor: one.pointColours ?? css(one.colour),
        pointBorderColor: colours.ink,
        pointRadius: one.points ? 4 : 0,
        pointHitRadius: one.points ? 12 : 0,
        borderWidth: one.points ? 1.5 : 2.5,
        borderDash: one.dashed ? [5, 5] : [],
        stepped: one.stepped ? 'middle' : false,
        spanGaps: true,
      })),
    };
    const look: ChartOptions<'line'> = {
      animation: false,
      responsive: true,
      maintainAspectRatio: false,
      onClick: (_event, elements) => {
        const index = elements[0]?.index;
        if (index !== undefined) onPoint?.(index);
      },
      scales: {
        x: {
          ticks: { color: colours.soft, maxTicksLimit: 10, maxRotation: 0 },
          grid: { color: 'transparent' },
          border: { color: colours.ink, width: 2 },
        },
        y: {
          beginAtZero: true,
          ...(most === undefined ? {} : { max: most }),
          ticks: { color: colours.soft, callback: (value) => `${value}${unit}` },
          grid: { color: colours.rule },
          border: { color: colours.ink, width: 2 },
        },
      },
      plugins: {
        tooltip: {
          callbacks: { label: (item) => `${item.dataset.label ?? ''}: ${Number(item.parsed.y).toFixed(1)}${unit}` },
        },
      },
    };
    return [made, look];
  }, [content, unit, most, onPoint, theme]);
  return (
    <div style={{ height: heightPx }}>
      <Line data={data} options={options} aria-label={says} />
    </div>
  );
}
