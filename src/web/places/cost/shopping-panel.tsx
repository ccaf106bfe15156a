import { sayCount } from '../../../core/base/say.ts';
import type { CablePrices, Costing } from '../../../core/document/chapters/costing/costing.ts';
import { COST_RANGES } from '../../../core/document/chapters/costing/costing-fields.ts';
import { type PlanLine, planLines, sumOfPlan } from '../../../core/places/cost/plan-lines.ts';
import { commandIssued, selectSite } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { Button } from '../../ui/button.tsx';
import { download, fileNameOf } from '../../ui/download.ts';
import { NumberField } from '../../ui/number-field.tsx';
import { Panel } from '../../ui/panel.tsx';

const MEDIA: readonly { readonly medium: keyof CablePrices; readonly label: string }[] = [
  { medium: 'network-cable', label: 'Network cable, a metre' },
  { medium: 'pair', label: 'Low-voltage pair, a metre' },
  { medium: 'usb', label: 'USB cable, a metre' },
  { medium: 'fibre', label: 'Fibre, a metre' },
];
const UNIT_WORDS: Readonly<Record<PlanLine['unit'], string>> = { pieces: '', m: ' m', packs: '' };

/** All that the plan has and somebody must buy: counted, priced as far as its figures say, to take along. */
export function ShoppingPanel() {
  const dispatch = useAppDispatch();
  const site = useAppSelector(selectSite);
  const { costing } = site;
  const lines = planLines(site);
  const { total, unpriced } = sumOfPlan(lines);
  const money = (value: number): string =>
    `${costing.currency} ${Number.isInteger(value) ? sayCount(value) : value.toFixed(2)}`;
  const price = (medium: keyof CablePrices, value: number | null): void => {
    const perMetre: Costing['perMetre'] = { ...costing.perMetre, [medium]: value };
    dispatch(
      commandIssued({ kind: 'setCosting', costing: { ...costing, perMetre }, what: `price of ${medium} changed` }),
    );
  };
  const save = async (): Promise<void> => {
    const { shoppingCsv } = await import('../../../core/handover/shopping-list.ts');
    download(`${fileNameOf(site.name)}-shopping.csv`, 'text/csv', shoppingCsv(lines, costing.currency));
  };
  return (
    <Panel
      title="Shopping list"
      aside="what the plan has, with the prices of its figures"
      actions={
        lines.length > 0 && (
          <>
            <Button onClick={() => void save()}>Save as CSV</Button>
            <Button onClick={() => print()}>Print</Button>
          </>
        )
      }
    >
      {lines.length === 0 ? (
        <p className="text-soft">
          Nothing is planned yet: choose models, add gear and link it, and it is counted here.
        </p>
      ) : (
        <div className="overflow-x-auto">
          <table className="w-full max-sm:text-small">
            <thead>
              <tr className="border-b border-hair text-left text-small text-soft">
                <th className="py-1">What</th>
                <th className="py-1 pl-2 text-right">Count</th>
                <th className="py-1 pl-3 text-right">Price</th>
                <th className="py-1 pl-3 text-right">Sum</th>
                <th className="py-1 pl-4 max-sm:hidden">For</th>
              </tr>
            </thead>
            <tbody>
              {lines.map(({ of, label, count, unit, price: one, note }) => (
                <tr key={of} className="border-b border-grid align-top last:border-b-0">
                  <th scope="row" className="py-1 text-left font-normal">
                    {label}
                    {note && <span className="block text-small text-soft sm:hidden">{note}</span>}
                  </th>
                  <td className="py-1 pl-2 text-right font-mono whitespace-nowrap">
                    {count}
                    {UNIT_WORDS[unit]}
                  </td>
                  <td className="py-1 pl-3 text-right font-mono whitespace-nowrap">
                    {one === null ? <span className="text-soft">no price yet</span> : money(one)}
                  </td>
                  <td className="py-1 pl-3 text-right font-mono whitespace-nowrap">
                    {one === null ? '–' : money(one * count)}
                  </td>
                  <td className="py-1 pl-4 text-small text-soft max-sm:hidden">{note}</td>
                </tr>
              ))}
            </tbody>
            <tfoot>
              <tr className="border-t border-ink font-strong">
                <th scope="row" className="py-1.5 text-left">
                  {unpriced > 0 ? 'As far as there are prices' : 'All of it'}
                </th>
                <td />
                <td />
                <td className="py-1.5 pl-3 text-right font-mono whitespace-nowrap">{money(total)}</td>
                <td className="py-1.5 pl-4 text-small font-normal text-brass max-sm:hidden">
                  {unpriced > 0 && `${unpriced} without a price: enter it with each item`}
                </td>
              </tr>
            </tfoot>
          </table>
        </div>
      )}
      <details className="no-print mt-3">
        <summary className="w-fit py-1 font-strong text-verdigris">Prices of a metre</summary>
        <div className="mt-1 grid grid-cols-2 gap-3 md:grid-cols-4">
          {MEDIA.map(({ medium, label }) => (
            <NumberField
              key={medium}
              label={label}
              value={costing.perMetre[medium]}
              range={COST_RANGES.money}
              isOptional
              onKeep={(value) => price(medium, value)}
            />
          ))}
        </div>
      </details>
    </Panel>
  );
}
