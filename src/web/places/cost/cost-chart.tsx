import {
  CategoryScale,
  Chart,
  Legend,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  Tooltip,
} from 'chart.js';
import { Line } from 'react-chartjs-2';
import type { OptionCost } from '../../../core/places/cost/option-cost.ts';
import { CHART_FONT, useChartColours } from '../../ui/chart-colours.ts';

Chart.register(CategoryScale, Legend, LinearScale, LineController, LineElement, PointElement, Tooltip);

/** One line an option: where two cross, the dearer one has paid for itself. */
export function CostChart({ costs, currency }: { costs: readonly OptionCost[]; currency: string }) {
  const colours = useChartColours();
  const lines = [
    { colour: colours.verdigris, dash: [] },
    { colour: colours.brass, dash: [7, 4] },
    { colour: colours.blue, dash: [2, 3] },
    { colour: colours.ink, dash: [10, 3, 2, 3] },
  ];
  const months = costs[0]?.spentByMonth.length ?? 0;
  const ticks = { color: colours.soft, font: { family: CHART_FONT, size: 12 } };
  return (
    <div className="h-72">
      <Line
        role="img"
        aria-label={`What each option has cost by each month: ${costs.map(({ option, total }) => `${option.name} ${Math.round(total)} ${currency} in the end`).join('; ')}`}
        data={{
          labels: Array.from({ length: months }, (_, month) => month),
          datasets: costs.map(({ option, spentByMonth }, at) => ({
            label: option.name,
            data: [...spentByMonth],
            borderColor: lines[at % lines.length]?.colour,
            borderDash: lines[at % lines.length]?.dash ?? [],
            borderWidth: 2,
            pointRadius: 0,
          })),
        }}
        options={{
          animation: false,
          maintainAspectRatio: false,
          layout: { padding: { right: 28 } },
          interaction: { mode: 'index', intersect: false },
          plugins: {
            legend: {
              position: 'bottom',
              labels: { color: colours.ink, font: { family: CHART_FONT, size: 13 }, boxHeight: 0, boxWidth: 28 },
            },
          },
          scales: {
            x: {
              grid: { display: false },
              ticks: {
                ...ticks,
                maxTicksLimit: 11,
                callback: (value) => (Number(value) % 12 === 0 ? `year ${Number(value) / 12}` : ''),
                autoSkip: false,
              },
            },
            y: {
              beginAtZero: true,
              grid: { color: colours.hair },
              ticks: { ...ticks, callback: (value) => `${currency} ${value}` },
            },
          },
        }}
      />
    </div>
  );
}
