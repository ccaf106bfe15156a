import {
  BarController,
  BarElement,
  CategoryScale,
  Chart,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  Tooltip,
} from 'chart.js';
import { Chart as ChartView } from 'react-chartjs-2';
import { monthNames, type SunYear } from '../../../core/power/sun-budget.ts';
import { CHART_FONT, useChartColours } from '../../ui/chart-colours.ts';

Chart.register(
  BarController,
  BarElement,
  CategoryScale,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  Tooltip,
);

/** Bars are what a day brings, the line is what it takes: a bar below the line is a month that fails. */
export function SunChart({ year }: { year: SunYear }) {
  const colours = useChartColours();
  const { months, shortMonths, unknownMonths } = year;
  const summary = `Solar yield and load of a day, month by month. ${shortMonths.length > 0 ? `Too little in ${monthNames(shortMonths)}.` : 'Enough in every month that is known.'}${unknownMonths.length > 0 ? ` ${monthNames(unknownMonths)}: not known.` : ''}`;
  return (
    <figure className="m-0">
      <div className="h-52">
        <ChartView
          type="bar"
          role="img"
          aria-label={summary}
          data={{
            labels: months.map(({ month }) => monthNames([month])),
            datasets: [
              {
                type: 'line',
                label: 'load, Wh a day',
                data: months.map(({ outWh }) => outWh),
                borderColor: colours.ink,
                borderWidth: 2,
                pointRadius: 0,
                stepped: 'middle',
              },
              {
                type: 'bar',
                label: 'yield, Wh a day',
                data: months.map(({ inWh }) => inWh),
                backgroundColor: months.map(({ isShort, isOnMains }) =>
                  isShort ? colours.brick : isOnMains ? colours.hair : colours.verdigris,
                ),
              },
            ],
          }}
          options={{
            animation: false,
            maintainAspectRatio: false,
            font: { family: CHART_FONT },
            plugins: {
              tooltip: {
                callbacks: {
                  label: ({ dataset, parsed }) => `${dataset.label}: ${parsed.y?.toFixed(1) ?? 'not known'}`,
                },
              },
            },
            scales: {
              x: { grid: { display: false }, ticks: { color: colours.soft, font: { family: CHART_FONT, size: 12 } } },
              y: {
                beginAtZero: true,
                grid: { color: colours.hair },
                ticks: { color: colours.soft, font: { family: CHART_FONT, size: 12 }, maxTicksLimit: 6 },
                title: { display: true, text: 'Wh a day', color: colours.soft, font: { family: CHART_FONT, size: 12 } },
              },
            },
          }}
        />
      </div>
      <figcaption className="flex flex-wrap gap-x-4 text-small text-soft">
        <span>
          <span className="mr-1 inline-block size-2.5 bg-verdigris" /> yield
        </span>
        <span>
          <span className="mr-1 inline-block size-2.5 bg-brick" /> yield too low
        </span>
        <span>
          <span className="mr-1 inline-block h-0.5 w-4 bg-ink align-middle" /> load
        </span>
        {unknownMonths.length > 0 && <span>{monthNames(unknownMonths)}: the sun stays too low for a figure</span>}
      </figcaption>
    </figure>
  );
}
