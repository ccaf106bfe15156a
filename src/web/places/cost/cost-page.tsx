import { lazy, Suspense, useState } from 'react';
import { LIST_LIMITS } from '../../../core/base/limits.ts';
import { inPercent } from '../../../core/base/range.ts';
import { sayCount, sayMany } from '../../../core/base/say.ts';
import { VERDICT_WORDS } from '../../../core/base/verdict.ts';
import type { Costing, CostOption } from '../../../core/document/chapters/costing/costing.ts';
import { COST_RANGES } from '../../../core/document/chapters/costing/costing-fields.ts';
import {
  breakEvenOf,
  costGround,
  judgeBreakEven,
  type OptionCost,
  optionCost,
} from '../../../core/places/cost/option-cost.ts';
import { newId } from '../../store/new-id.ts';
import { commandIssued, selectSite } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { LicenceLine } from '../../things/destination/index.ts';
import { Button } from '../../ui/button.tsx';
import { Drop } from '../../ui/drop.tsx';
import { NumberField } from '../../ui/number-field.tsx';
import { Panel } from '../../ui/panel.tsx';
import { SCHOOL_WORDS } from './approach-words.ts';
import { ShoppingPanel } from './shopping-panel.tsx';

const CostChart = lazy(async () => ({ default: (await import('./cost-chart.tsx')).CostChart }));
const OptionDialog = lazy(async () => ({ default: (await import('./option-dialog.tsx')).OptionDialog }));

const NEW_OPTION: Omit<CostOption, 'id'> = {
  name: '',
  school: 'software',
  destinationId: null,
  lines: [],
  includedSeats: 0,
  packs: [],
  subscriptionPerMonth: 0,
  loadW: 15,
};

/** Schools of thought side by side, over the years: what is bought, what runs, when the dearer one has paid for itself. */
export function CostPage() {
  const dispatch = useAppDispatch();
  const site = useAppSelector(selectSite);
  const { costing } = site;
  const [edited, setEdited] = useState<CostOption | null>(null);
  const counting = site.destinations.filter(({ seats }) => seats !== null);
  const isFull = costing.options.length >= LIST_LIMITS.costOptions;
  const ground = costGround(site);
  const costs = costing.options.map((option) => optionCost(option, costing, ground));
  const payable = costs.filter(({ seats }) => seats !== null);
  const cheapest = payable.toSorted((a, b) => a.total - b.total)[0];
  const lowest = payable.toSorted((a, b) => a.upfront - b.upfront)[0];
  const set = (changed: Partial<Costing>, what: string): void =>
    void dispatch(commandIssued({ kind: 'setCosting', costing: { ...costing, ...changed }, what }));
  const money = (value: number): string => `${costing.currency} ${sayCount(value)}`;
  return (
    <>
      <header className="mb-3 flex flex-wrap items-center gap-x-4 gap-y-2">
        <h1 className="text-title">Cost</h1>
        <p className="text-soft">
          {sayMany(site.cameras.length, 'camera')} · {sayMany(ground.licencesNeeded, 'licence')} ·{' '}
          {ground.camerasW > 0 ? `${ground.camerasW.toFixed(0)} W` : 'watts not known'}
        </p>
        <Button
          className="ml-auto"
          kind={costing.options.length === 0 ? 'main' : 'plain'}
          disabled={isFull}
          title={isFull ? `At most ${LIST_LIMITS.costOptions} options side by side` : undefined}
          onClick={() => setEdited({ ...NEW_OPTION, id: newId('option') })}
        >
          Add an option
        </Button>
      </header>
      <div className="flex flex-col gap-4">
        <Panel title="Period">
          <div className="grid grid-cols-2 gap-3 md:grid-cols-4">
            <NumberField
              label="Years"
              value={costing.years}
              range={COST_RANGES.years}
              onKeep={(years) => set({ years: years ?? costing.years }, 'years changed')}
            />
            <NumberField
              label={`Energy, ${costing.currency} a kWh`}
              value={costing.energyPrice}
              range={COST_RANGES.energyPrice}
              onKeep={(energyPrice) =>
                set({ energyPrice: energyPrice ?? costing.energyPrice }, 'price of energy changed')
              }
            />
            <NumberField
              label="Prices rise, % a year"
              value={costing.priceRise * 100}
              range={inPercent(COST_RANGES.priceRise)}
              onKeep={(percent) => set({ priceRise: (percent ?? 0) / 100 }, 'rise of prices changed')}
            />
          </div>
        </Panel>
        {costs.length === 0 ? (
          <p className="text-soft">
            Add an option or two: a recorder box, software, or both, and they are compared here.
          </p>
        ) : (
          <>
            <Panel
              title="Side by side"
              aside={cheapest ? `${cheapest.option.name} costs least over ${costing.years} years` : undefined}
            >
              <div className="overflow-x-auto">
                <table className="w-full max-sm:text-small sm:min-w-[560px]">
                  <thead>
                    <tr className="border-b border-hair align-top">
                      <th />
                      {costs.map(({ option }) => (
                        <th key={option.id} className="px-1 py-1 text-left sm:px-2">
                          <button
                            type="button"
                            onClick={() => setEdited(option)}
                            className="text-left underline decoration-hair underline-offset-2 hover:decoration-ink"
                          >
                            {option.name}
                          </button>
                          <span className="block text-small font-normal text-soft">{SCHOOL_WORDS[option.school]}</span>
                        </th>
                      ))}
                    </tr>
                  </thead>
                  <tbody>
                    <Row label="bought at once" costs={costs} said={({ upfront }) => money(upfront)} />
                    <Row label="of this, licences" costs={costs} said={sayLicences(money)} />
                    <Row label="replacement" costs={costs} said={({ replacements }) => money(replacements)} />
                    <Row label="subscription" costs={costs} said={({ subscription }) => money(subscription)} />
                    <Row label="energy" costs={costs} said={({ energy }) => money(energy)} />
                    <Row
                      label={`${costing.years} years, total cost`}
                      costs={costs}
                      said={({ total }) => money(total)}
                      isStrong
                    />
                    <tr className="align-top">
                      <th scope="row" className="py-1.5 pr-2 text-left font-normal text-soft">
                        pays for itself
                      </th>
                      {costs.map((cost) => (
                        <td key={cost.option.id} className="px-1 py-1.5 sm:px-2">
                          <PaysBack cost={cost} lowest={lowest} years={costing.years} />
                        </td>
                      ))}
                    </tr>
                  </tbody>
                </table>
              </div>
            </Panel>
            <Panel title="Spent by then">
              <Suspense fallback={<div className="h-72" />}>
                <CostChart costs={payable} currency={costing.currency} />
              </Suspense>
            </Panel>
          </>
        )}
        {counting.length > 0 && (
          <Panel title="Licences" aside="of every camera that goes there, by a tap or as its need says">
            <ul className="flex flex-wrap gap-x-8 gap-y-1">
              {counting.map((destination) => (
                <li key={destination.id}>
                  <LicenceLine destination={destination} />
                </li>
              ))}
            </ul>
          </Panel>
        )}
        <ShoppingPanel />
      </div>
      {edited && (
        <Suspense fallback={null}>
          <OptionDialog
            option={edited}
            isNew={!costing.options.some(({ id }) => id === edited.id)}
            onClose={() => setEdited(null)}
            onKeep={(option) => {
              dispatch(commandIssued({ kind: 'putOption', option }));
              setEdited(null);
            }}
          />
        </Suspense>
      )}
    </>
  );
}

const sayLicences =
  (money: (value: number) => string) =>
  ({ ground, seats }: OptionCost): string => {
    if (!seats) return 'no packs are entered';
    const packs = seats.counts.flatMap((count, at) =>
      count > 0 ? [`${count}\u00a0×\u00a0${ground.packs[at]?.seats}`] : [],
    );
    if (packs.length === 0) return `${ground.used} of ${ground.included} included`;
    return `${money(seats.cost)}: ${packs.join(', ')}${seats.spareLicences > 0 ? `, ${seats.spareLicences} to spare` : ''}`;
  };

interface RowProps {
  readonly label: string;
  readonly costs: readonly OptionCost[];
  readonly said: (cost: OptionCost) => string;
  readonly isStrong?: boolean;
}
function Row({ label, costs, said, isStrong = false }: RowProps) {
  return (
    <tr className={`border-b border-hair align-top ${isStrong ? 'font-strong' : ''}`}>
      <th scope="row" className={`py-1.5 pr-2 text-left ${isStrong ? '' : 'font-normal text-soft'}`}>
        {label}
      </th>
      {costs.map((cost) => (
        <td key={cost.option.id} className="px-1 py-1.5 font-mono sm:px-2">
          {said(cost)}
        </td>
      ))}
    </tr>
  );
}

/** When an option has cost no more than the one that is cheapest to begin with. */
function PaysBack({ cost, lowest, years }: { cost: OptionCost; lowest: OptionCost | undefined; years: number }) {
  if (cost.seats === null) return <span className="text-brick">not enough licences for every camera</span>;
  if (!lowest || lowest === cost) return <span className="text-soft">cheapest at the start</span>;
  const month = breakEvenOf(cost, lowest);
  const verdict = judgeBreakEven(month, years);
  return (
    <span className="flex items-start gap-1.5">
      <Drop verdict={verdict} size={16} label={VERDICT_WORDS[verdict]} />
      {month === null ? `not within ${years} years` : `in month ${month}`}
    </span>
  );
}
