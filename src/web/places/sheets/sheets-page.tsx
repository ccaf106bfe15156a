import { Link, useSearchParams } from 'react-router';
import { sayMany } from '../../../core/base/say.ts';
import { plainUrlOf } from '../../../core/document/stream-address.ts';
import { type PackSheet, packOf } from '../../../core/handover/pack.ts';
import { handOverState } from '../../../core/stations/hand-over/index.ts';
import { commandIssued, selectIndex, selectSite } from '../../store/site-slice.ts';
import { stationPath } from '../../store/station-path.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { useSiteId } from '../../store/use-site-id.ts';
import { Button } from '../../ui/button.tsx';
import { download, fileNameOf } from '../../ui/download.ts';
import { KnownHowMark } from '../../ui/known-how.tsx';
import { SelectField } from '../../ui/text-field.tsx';

/** Everything that one destination draws, or all of them, sheet after sheet in the order of its channels: to take along. */
export function SheetsPage() {
  const dispatch = useAppDispatch();
  const site = useAppSelector(selectSite);
  const index = useAppSelector(selectIndex);
  const [search, setSearch] = useSearchParams();
  const asked = search.get('destination');
  const destination = site.destinations.find(({ id }) => id === asked) ?? null;
  const pack = packOf(site, index, destination?.id ?? null);
  const what = destination?.name ?? site.name;
  const save = async (kind: 'csv' | 'yaml'): Promise<void> => {
    const { packAsCsv, packAsYaml } = await import('../../../core/handover/sheet-files.ts');
    const name = `${fileNameOf(site.name)}${destination ? `-${fileNameOf(destination.name)}` : ''}-sheets`;
    if (kind === 'csv') download(`${name}.csv`, 'text/csv', packAsCsv(pack));
    else download(`${name}.yaml`, 'application/yaml', packAsYaml(pack));
    const subject = destination ? `destination:${destination.id}` : 'site';
    const text = `${sayMany(pack.length, 'sheet')} of ${what} saved as ${kind.toUpperCase()}`;
    dispatch(commandIssued({ kind: 'note', logKind: 'hand-over', subject, text }));
  };
  return (
    <>
      <header className="mb-3 flex flex-wrap items-end gap-x-4 gap-y-2">
        <h1 tabIndex={-1} className="text-title outline-none">
          All sheets
        </h1>
        <p className="text-soft">
          {sayMany(pack.length, 'sheet')} of {what}
        </p>
        <span className="no-print ml-auto flex flex-wrap items-end gap-2">
          <SelectField
            label="Of"
            value={destination?.id ?? ''}
            onChange={(id) => setSearch(id === '' ? {} : { destination: id }, { replace: true })}
            options={[
              { value: '', label: 'the whole site' },
              ...site.destinations.map(({ id, name }) => ({ value: id, label: name })),
            ]}
          />
          <Button disabled={pack.length === 0} onClick={() => void save('csv')}>
            Save as CSV
          </Button>
          <Button disabled={pack.length === 0} onClick={() => void save('yaml')}>
            Save as YAML
          </Button>
          <Button disabled={pack.length === 0} onClick={() => print()}>
            Print
          </Button>
        </span>
      </header>
      {pack.length === 0 ? (
        <p className="text-soft">
          No sheets yet: a sheet is made for each destination that pulls a stream, at the Tap station.
        </p>
      ) : (
        <div className="grid gap-4 md:grid-cols-2 print:block">
          {pack.map((one) => (
            <SheetCard key={one.tap.id} one={one} />
          ))}
        </div>
      )}
      <p className="mt-3 text-small text-soft">
        Saved files and prints never contain a password: give each separately, from the sheet of its camera.
      </p>
    </>
  );
}

function SheetCard({ one: { tap, channel, sheet } }: { one: PackSheet }) {
  const dispatch = useAppDispatch();
  const site = useAppSelector(selectSite);
  const index = useAppSelector(selectIndex);
  const siteId = useSiteId();
  const camera = site.cameras.find(({ id }) => id === tap.cameraId);
  const stream = camera?.streams.find(({ id }) => id === tap.streamId);
  if (!camera || !stream) return null;
  const url = plainUrlOf(camera, stream);
  const state = handOverState(index, tap, url);
  const enter = (): void => {
    const refs = sheet.fields
      .filter(({ key }) => key !== 'secret')
      .map(({ label, value }) => ({ name: label.toLowerCase(), value }));
    dispatch(commandIssued({ kind: 'recordHandOver', tapId: tap.id, url, by: 'entered by hand', refs }));
  };
  return (
    <section
      aria-label={`${sheet.camera} for ${sheet.destination}`}
      className="rounded-sheet border border-hair bg-sheet px-4 py-3 print:mb-6 print:break-inside-avoid"
    >
      <header className="mb-1 flex flex-wrap items-baseline gap-x-2">
        <span className="font-mono text-small text-soft">{channel}</span>
        <h2 className="text-name">
          {sheet.camera} <span className="font-normal text-soft">for</span> {sheet.destination}
        </h2>
        <span className="no-print ml-auto flex items-center gap-2 text-small">
          {state === 'yes' ? (
            <span className="text-verdigris">entered</span>
          ) : (
            <Button aria-label={`${sheet.camera} entered at ${sheet.destination}`} onClick={enter}>
              {state === 'outdated' ? 'Entered again' : 'Entered'}
            </Button>
          )}
          <Link
            to={`${stationPath(siteId, camera.id, 'hand-over')}?tap=${tap.id}`}
            className="font-strong text-verdigris hover:underline"
          >
            Its sheet&nbsp;→
          </Link>
        </span>
      </header>
      <dl className="grid grid-cols-[auto_1fr] gap-x-3 text-small">
        {sheet.fields
          .filter(({ value, key }) => value !== '–' && key !== 'name')
          .map((field) => (
            <div key={field.key} className="contents">
              <dt className="text-soft">{field.label}</dt>
              <dd className={field.isCode ? 'font-mono break-all' : ''}>
                {field.value} {field.how && <KnownHowMark how={field.how} />}
              </dd>
            </div>
          ))}
      </dl>
    </section>
  );
}
