import type { HomeShape } from '@haycart/api';
import { Chart, LinearScale, Tooltip } from 'chart.js';
import { Flow, SankeyController } from 'chartjs-chart-sankey';
import { useEffect, useRef } from 'react';
import { useTheme } from '../state/theme';

Chart.register(SankeyController, Flow, LinearScale, Tooltip);

/** Ends that are no pipeline have a colour of their own; pipelines share the field's greens. */
const END_TOKENS: Record<string, string> = {
  Held: '--color-straw',
  'Left out': '--color-faint',
  Failed: '--color-brick',
  'Taken back': '--color-slate',
};

/** The last day as a flow: intakes at the left, where their submissions went at the right. */
export function FlowChart({ flows }: { flows: HomeShape['flows'] }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const theme = useTheme(({ theme }) => theme);
  useEffect(() => {
    const style = getComputedStyle(document.documentElement);
    const token = (name: string) => style.getPropertyValue(name).trim();
    const sum = (side: 'from' | 'to', name: string) =>
      flows.filter((flow) => flow[side] === name).reduce((total, flow) => total + flow.count, 0);
    const labels = Object.fromEntries([
      ...flows.map(({ from }) => [`from ${from}`, `${from} ${sum('from', from)}`]),
      ...flows.map(({ to }) => [`to ${to}`, `${sum('to', to)} ${to}`]),
    ]) as Record<string, string>;
    const chart = new Chart(canvas.current!, {
      type: 'sankey',
      data: {
        datasets: [
          {
            data: flows.map(({ from, to, count }) => ({ from: `from ${from}`, to: `to ${to}`, flow: count })),
            labels,
            colorFrom: () => token('--color-ink'),
            colorTo: (context) => token(END_TOKENS[(context.raw as { to: string }).to.slice(3)] ?? '--color-green'),
            colorMode: 'to',
            alpha: 0.28,
            borderWidth: 0,
            nodeWidth: 8,
            nodePadding: 18,
            color: token('--color-ink'),
            font: { family: 'Figtree Variable', size: 13 },
            size: 'max',
          },
        ],
      },
      options: {
        responsive: true,
        maintainAspectRatio: false,
        animation: false,
        layout: { padding: { top: 8, bottom: 8 } },
        plugins: { tooltip: { displayColors: false } },
      },
    });
    return () => chart.destroy();
  }, [flows, theme]);
  const words = flows.map(({ from, to, count }) => `${count} from ${from} to ${to}`).join('; ');
  return (
    <div className="relative min-h-0 flex-1">
      <canvas ref={canvas} role="img" aria-label={`Where submissions went: ${words}`} className="absolute inset-0" />
    </div>
  );
}
