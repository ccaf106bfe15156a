import { Link, useSearchParams } from 'react-router';
import { VERDICT_WORDS } from '../../../core/base/verdict.ts';
import type { Camera, Stream } from '../../../core/document/chapters/cameras/camera.ts';
import type { Tap } from '../../../core/document/chapters/taps/tap.ts';
import { plainUrlOf, streamUrlOf } from '../../../core/document/stream-address.ts';
import { tapSubject } from '../../../core/document/subject.ts';
import { type Sheet, type SheetField, sheetFor } from '../../../core/handover/sheet.ts';
import { asksForSecret } from '../../../core/net/path-places.ts';
import { buildStreamUrl, pathAndQuery } from '../../../core/net/stream-url.ts';
import { handOverState } from '../../../core/stations/hand-over/index.ts';
import { judgeTap } from '../../../core/stations/tap/index.ts';
import { commandIssued, selectIndex, selectSite } from '../../store/site-slice.ts';
import { stationPath } from '../../store/station-path.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { useSiteId } from '../../store/use-site-id.ts';
import { loginOf } from '../../things/account/index.ts';
import { Button } from '../../ui/button.tsx';
import { CopyButton } from '../../ui/copy-button.tsx';
import { download, fileNameOf } from '../../ui/download.ts';
import { Drop } from '../../ui/drop.tsx';
import { FindingList } from '../../ui/finding-card.tsx';
import { KnownHowMark } from '../../ui/known-how.tsx';
import { TabStrip } from '../../ui/tab-strip.tsx';
import { ThumbBar } from '../../ui/thumb-bar.tsx';
import { rtspPlace } from '../../vault/camera-places.ts';
import { useVault } from '../../vault/vault-context.tsx';
import { StationFrame } from '../station-frame.tsx';
import { ShownSecret } from './shown-secret.tsx';

/** The Hand over station: the sheet of one tap, as the destination's form asks for it. */
export function HandOverPage() {
  return (
    <StationFrame station="hand-over">{(camera) => <HandOverBench key={camera.id} camera={camera} />}</StationFrame>
  );
}

function HandOverBench({ camera }: { camera: Camera }) {
  const site = useAppSelector(selectSite);
  const siteId = useSiteId();
  const [search, setSearch] = useSearchParams();
  const taps = site.taps.filter((tap) => tap.cameraId === camera.id);
  const tap = taps.find(({ id }) => id === search.get('tap')) ?? taps[0];
  const stream = camera.streams.find(({ id }) => id === tap?.streamId);
  if (!tap || !stream)
    return (
      <div className="max-w-lg py-8">
        <h2 className="text-name">No destination for {camera.name} yet</h2>
        <p className="mt-1 text-soft">
          A sheet is made for one destination pulling one stream. Choose it at the Tap station.
        </p>
        <Link
          to={stationPath(siteId, camera.id, 'tap')}
          className="mt-3 inline-block font-strong text-verdigris hover:underline"
        >
          Choose where it goes →
        </Link>
      </div>
    );
  const tabs = taps.map(({ id, destinationId, use }) => ({
    value: id,
    label: `${site.destinations.find((one) => one.id === destinationId)?.name ?? destinationId}, ${use}`,
  }));
  return (
    <TabStrip label="Sheets" value={tap.id} onChange={(id) => setSearch({ tap: id }, { replace: true })} tabs={tabs}>
      <SheetBench key={tap.id} camera={camera} stream={stream} tap={tap} />
    </TabStrip>
  );
}

function SheetBench({ camera, stream, tap }: { camera: Camera; stream: Stream; tap: Tap }) {
  const site = useAppSelector(selectSite);
  const index = useAppSelector(selectIndex);
  const dispatch = useAppDispatch();
  const siteId = useSiteId();
  const vault = useVault();
  const sheet = sheetFor(site, index, tap);
  const { verdict, findings } = judgeTap(site, index, tap);
  const url = plainUrlOf(camera, stream);
  const state = handOverState(index, tap, url);
  if (!sheet) return null;
  const secret = (): string | null => (camera.account ? vault.get(camera.account.secretRef) : null);
  const textOf = (field: SheetField): string | null => {
    if (field.key === 'secret') return secret();
    // with its address a password goes only where it was typed for; by itself it is shown to whoever asked
    const use = { site, camera, account: camera.account, place: rtspPlace(camera, stream) };
    const bound = loginOf(use, vault).secret;
    if (field.key === 'url') return buildStreamUrl(streamUrlOf(camera, stream, bound));
    if (field.key === 'path') return pathAndQuery(streamUrlOf(camera, stream, bound));
    return field.value;
  };
  const logSaved = (text: string): void =>
    void dispatch(commandIssued({ kind: 'note', logKind: 'hand-over', subject: tapSubject(tap.id), text }));
  const savePlaylist = async (kind: 'm3u8' | 'xspf'): Promise<void> => {
    const { asM3u8, asXspf, playlistOf } = await import('../../../core/handover/playlists.ts');
    const entries = playlistOf(site, tap.destinationId);
    const name = `${fileNameOf(sheet.site)}-${fileNameOf(sheet.destination)}`;
    if (kind === 'm3u8') download(`${name}.m3u8`, 'audio/mpegurl', asM3u8(entries));
    else download(`${name}.xspf`, 'application/xspf+xml', asXspf(`${sheet.site}, ${sheet.destination}`, entries));
    logSaved(`Playlist of ${sheet.destination} saved as ${kind.toUpperCase()}`);
  };
  const save = async (kind: 'csv' | 'yaml'): Promise<void> => {
    const { sheetsAsCsv, sheetsAsYaml } = await import('../../../core/handover/sheet-files.ts');
    const name = `${fileNameOf(sheet.camera)}-${fileNameOf(sheet.destination)}`;
    if (kind === 'csv') download(`${name}.csv`, 'text/csv', sheetsAsCsv([sheet]));
    else download(`${name}.yaml`, 'application/yaml', sheetsAsYaml([sheet]));
    logSaved(`Sheet of ${sheet.camera} for ${sheet.destination} saved as ${kind.toUpperCase()}`);
  };
  const handOver = (): void => {
    const refs = sheet.fields
      .filter(({ key }) => key !== 'secret')
      .map(({ label, value }) => ({ name: label.toLowerCase(), value }));
    dispatch(commandIssued({ kind: 'recordHandOver', tapId: tap.id, url, by: 'entered by hand', refs }));
  };
  return (
    <div className="grid items-start gap-4 lg:grid-cols-[minmax(0,7fr)_minmax(0,4fr)]">
      <section aria-label="Sheet" className="rounded-sheet border border-hair bg-sheet px-4 py-3 print:border-0">
        <header className="mb-2 flex flex-wrap items-baseline gap-x-3">
          <h2 className="text-name">
            {sheet.camera} <span className="font-normal text-soft">for</span> {sheet.destination}
          </h2>
          <span className="text-small text-soft">
            {sheet.site}, {sheet.stream} stream
          </span>
        </header>
        <SheetTable
          sheet={sheet}
          textOf={textOf}
          isLocked={vault.state === 'locked'}
          isPathSecret={asksForSecret(stream.path)}
          hasSecret={camera.account !== null && vault.has(camera.account.secretRef)}
        />
        <p className="mt-3 hidden text-small text-soft print:block">
          Give the password separately. Printed {new Date().toLocaleString()}.
        </p>
      </section>
      <aside className="no-print flex flex-col gap-4">
        <section aria-label="Verdict" className="rounded-sheet border border-hair bg-sheet px-4 py-3">
          <p className="flex items-center gap-2">
            <Drop verdict={verdict} />
            <b>{VERDICT_WORDS[verdict]}</b>
            <span className="text-soft">at {sheet.destination}</span>
          </p>
          {findings.length > 0 && (
            <div className="mt-2">
              <FindingList findings={findings} />
            </div>
          )}
        </section>
        <section aria-label="Hand over" className="rounded-sheet border border-hair bg-sheet px-4 py-3">
          <h2 className="text-small">Hand it over</h2>
          <p className="mt-1 mb-3 text-soft">
            {state === 'yes'
              ? `Entered at ${sheet.destination}, with this address.`
              : state === 'outdated'
                ? `Entered at ${sheet.destination} before the address changed. Enter it again.`
                : `Enter these at ${sheet.destination}, check that its picture appears, then confirm it here.`}
          </p>
          <div className="flex flex-wrap gap-2">
            {state !== 'yes' && (
              <ThumbBar>
                <Button kind="main" onClick={handOver}>
                  Entered at {sheet.destination}
                </Button>
              </ThumbBar>
            )}
            <Button onClick={() => void save('csv')}>Save as CSV</Button>
            <Button onClick={() => void save('yaml')}>Save as YAML</Button>
            <Button onClick={() => print()}>Print</Button>
          </div>
          <p className="mt-3 mb-1.5 text-soft">Everything that {sheet.destination} pulls, as a playlist:</p>
          <div className="flex flex-wrap gap-2">
            <Button onClick={() => void savePlaylist('m3u8')}>Save as M3U8</Button>
            <Button onClick={() => void savePlaylist('xspf')}>Save as XSPF</Button>
          </div>
          <p className="mt-3">
            <Link
              to={`/site/${siteId}/sheets?destination=${tap.destinationId}`}
              className="inline-flex min-h-8 items-center font-strong text-verdigris hover:underline"
            >
              All sheets of {sheet.destination}&nbsp;→
            </Link>
          </p>
          <p className="mt-3 text-small text-soft">
            Saved files and prints never contain the password. Copy it once where it is needed.
          </p>
        </section>
      </aside>
    </div>
  );
}

function SheetTable({
  sheet,
  textOf,
  hasSecret,
  isLocked,
  isPathSecret,
}: {
  sheet: Sheet;
  textOf: (field: SheetField) => string | null;
  hasSecret: boolean;
  isLocked: boolean;
  /** The path holds the secret too, once it is filled in. */
  isPathSecret: boolean;
}) {
  return (
    <table className="w-full">
      <tbody>
        {sheet.fields.map((field) => {
          const isSecret = field.key === 'secret';
          const withSecret = isSecret || field.key === 'url' || (field.key === 'path' && isPathSecret);
          const isEmpty = field.value === '–' || (isSecret && !hasSecret);
          return (
            <tr
              key={field.key}
              className="border-t border-grid first:border-t-0 max-md:grid max-md:grid-cols-[minmax(0,1fr)_auto] max-md:py-1"
            >
              <th
                scope="row"
                className="w-32 pr-3 text-left align-middle font-normal text-soft max-md:w-auto max-md:text-small md:py-1"
              >
                {field.label}
              </th>
              <td className="align-middle max-md:col-start-1 md:py-1">
                <span className="inline-flex items-center gap-2">
                  {isSecret && hasSecret ? (
                    <ShownSecret mask={field.value} secret={() => textOf(field)} />
                  ) : (
                    <span className={field.isCode ? 'font-mono break-all' : ''}>{field.value}</span>
                  )}
                  {field.how && <KnownHowMark how={field.how} />}
                </span>
                {isSecret && field.value !== 'none' && !hasSecret && (
                  <span className="text-small text-soft"> {isLocked ? 'locked' : 'not known here'}</span>
                )}
              </td>
              <td className="no-print w-0 pl-2 text-right align-middle max-md:col-start-2 max-md:row-span-2 max-md:row-start-1 max-md:w-auto max-md:self-center md:py-1">
                {!isEmpty && field.value !== 'none' && (
                  <CopyButton
                    text={() => textOf(field)}
                    label={`Copy ${field.label}${withSecret && hasSecret ? ', with the password' : ''}`}
                  >
                    {withSecret && !isSecret && hasSecret ? 'Copy with password' : 'Copy'}
                  </CopyButton>
                )}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
