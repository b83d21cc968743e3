import type { SourcesReport } from '@haycart/api';
import { BarController, BarElement, CategoryScale, Chart, LinearScale, Tooltip } from 'chart.js';
import { useEffect, useRef } from 'react';
import { money, shortMoney } from '../components/format';
import { Sheet } from '../components/sheet';
import { useTheme } from '../state/theme';
import { channelWord } from './channel-word';

Chart.register(BarController, BarElement, CategoryScale, LinearScale, Tooltip);

/** What each channel is drawn in, whatever else is shown; the known ones first, in the order in which people read them. */
const CHANNELS = ['referral', 'search', 'paid', 'e-mail', 'social', 'campaign', 'file', 'direct'];
const TOKENS = ['green', 'mark-teal', 'straw', 'slate', 'mark-plum', 'mark-clay', 'mark-moss', 'mark-stone'];
const tokenOf = (channel: string) => `--color-${TOKENS[CHANNELS.indexOf(channel)] ?? 'faint'}`;
const MONTH = new Intl.DateTimeFormat('en-GB', { month: 'short', timeZone: 'UTC' });

/** What was won, month by month, by channel. */
export function WonChart({ months, currency }: Pick<SourcesReport, 'months' | 'currency'>) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const theme = useTheme(({ theme }) => theme);
  const { names, labels, series } = stacked(months);
  useEffect(() => {
    const style = getComputedStyle(document.documentElement);
    const token = (name: string) => style.getPropertyValue(name).trim();
    const font = { family: 'Figtree Variable', size: 12 };
    const shown = stacked(months);
    const chart = new Chart(canvas.current!, {
      type: 'bar',
      data: {
        labels: shown.labels.map((month) => MONTH.format(new Date(`${month}-01`))),
        datasets: shown.names.map((name, index) => ({
          label: channelWord(name),
          data: shown.series[index]!,
          backgroundColor: token(tokenOf(name)),
          borderColor: token('--color-sheet'),
          borderWidth: { top: 1 },
          maxBarThickness: 40,
        })),
      },
      options: {
        responsive: true,
        maintainAspectRatio: false,
        animation: false,
        scales: {
          x: {
            stacked: true,
            grid: { display: false },
            ticks: { color: token('--color-muted'), font },
            border: { color: token('--color-ink') },
          },
          y: {
            stacked: true,
            grid: { color: token('--color-hair') },
            border: { display: false },
            ticks: {
              color: token('--color-muted'),
              font,
              maxTicksLimit: 5,
              callback: (amount) => shortMoney({ amount: Number(amount), currency }),
            },
          },
        },
        plugins: {
          tooltip: {
            callbacks: {
              label: ({ dataset, parsed }) => `${dataset.label}: ${money({ amount: Number(parsed.y), currency })}`,
            },
          },
        },
      },
    });
    return () => chart.destroy();
  }, [months, currency, theme]);
  const words = labels.map((month, at) => {
    const sum = series.reduce((all, one) => all + one[at]!, 0);
    return `${month} ${money({ amount: sum, currency })}`;
  });
  return (
    <Sheet className="flex h-[280px] min-w-0 flex-col px-4 py-3">
      <header className="mb-2 flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <h2 className="mr-auto text-base">Won by month and channel</h2>
        <ul className="flex flex-wrap gap-x-3 text-small">
          {names.map((name) => (
            <li key={name} className="flex items-center gap-1.5">
              <span aria-hidden className="size-2.5" style={{ background: `var(${tokenOf(name)})` }} />
              {channelWord(name)}
            </li>
          ))}
        </ul>
      </header>
      <div className="relative min-h-0 flex-1">
        <canvas
          ref={canvas}
          role="img"
          aria-label={`Won: ${words.join('; ') || 'nothing'}`}
          className="absolute inset-0"
        />
      </div>
    </Sheet>
  );
}

/** The channels, those that brought most first, and what each brought in each month. */
function stacked(months: SourcesReport['months']): { names: string[]; labels: string[]; series: number[][] } {
  const whole = new Map<string, number>();
  for (const { channel, won } of months.flatMap(({ channels }) => channels))
    whole.set(channel, (whole.get(channel) ?? 0) + won);
  const names = [...whole.keys()].sort((one, other) => whole.get(other)! - whole.get(one)!);
  const series = names.map((name) =>
    months.map(({ channels }) => channels.find(({ channel }) => channel === name)?.won ?? 0),
  );
  return { names, labels: months.map(({ month }) => month), series };
}
