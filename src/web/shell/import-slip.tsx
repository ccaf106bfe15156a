import { clipText } from '../../core/base/clip.ts';
import { sayCount, sayMany } from '../../core/base/say.ts';
import { LIST_FIELDS, type ListRow, type ListTable } from '../../core/imports/camera-list.ts';
import { commandIssued, selectSite } from '../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../store/store.ts';
import { Button } from '../ui/button.tsx';
import { DialogFrame } from '../ui/dialog-frame.tsx';
import { Drop } from '../ui/drop.tsx';
import { boundTo } from '../vault/camera-places.ts';
import { useVault } from '../vault/vault-context.tsx';
import { cellShown, importOf } from './import-cameras.ts';
import { type ListReading, useListReading } from './use-list-reading.ts';

interface ImportSlipProps {
  readonly file: File;
  readonly onClose: () => void;
}

/** As many rows as a person looks through; all of them are taken. */
const ROWS_SHOWN = 200;

/** A camera list before it is taken: which column holds what, which rows fit, and why the others do not. */
export function ImportSlip({ file, onClose }: ImportSlipProps) {
  const reading = useListReading(file, useAppSelector(selectSite));
  const { refused, table, rows, done } = reading;
  return (
    <DialogFrame
      title={refused === null ? `Cameras of ${clipText(file.name, 80)}` : 'This list was not imported'}
      description={
        refused === null
          ? 'Choose what each column holds. Nothing is added before you import it.'
          : 'The site you have open is as it was.'
      }
      isOpen
      isWide={refused === null}
      onOpenChange={(isOpen) => !isOpen && onClose()}
    >
      {refused !== null ? (
        <>
          <p role="alert" className="border-l-[3px] border-brick pl-3">
            {clipText(file.name, 80)}: {refused}
          </p>
          <div className="mt-4 flex justify-end">
            <Button onClick={onClose}>Close</Button>
          </div>
        </>
      ) : table && rows ? (
        <Preview fileName={file.name} reading={reading} table={table} rows={rows} onClose={onClose} />
      ) : (
        <div className="flex flex-wrap items-center gap-2">
          <RowsRead done={done ?? 0} of={table?.rows.length ?? 0} />
          <Button onClick={onClose}>Cancel</Button>
        </div>
      )}
    </DialogFrame>
  );
}

function RowsRead({ done, of }: { done: number; of: number }) {
  return (
    <p role="status" className="mr-auto flex flex-wrap items-center gap-2">
      {of === 0 ? 'Reading the file …' : `Reading ${sayCount(done)} of ${sayMany(of, 'row')} …`}
      {of > 0 && <progress aria-label="Rows read" className="min-w-40" value={done} max={of} />}
    </p>
  );
}

interface PreviewProps {
  readonly fileName: string;
  readonly reading: ListReading;
  readonly table: ListTable;
  readonly rows: readonly ListRow[];
  readonly onClose: () => void;
}

function Preview({ fileName, reading: { columns, done, choose }, table, rows, onClose }: PreviewProps) {
  const dispatch = useAppDispatch();
  const vault = useVault();
  const site = useAppSelector(selectSite);
  const { models } = site;
  const good = rows.flatMap(({ camera }) => camera ?? []);
  const taken = good.filter(({ isLoginTaken }) => isLoginTaken).length;
  const leftOut = rows.length - good.length;
  const take = (): void => {
    const { secrets, ...imported } = importOf(good, models);
    const known = { ...site, models: [...models, ...imported.models] };
    for (const camera of imported.cameras) {
      const secret = camera.account && secrets[camera.account.secretRef];
      if (camera.account && secret)
        vault.set(camera.account.secretRef, secret, boundTo(known, camera, camera.account.user));
    }
    dispatch(commandIssued({ kind: 'importCameras', ...imported, from: clipText(fileName, 80), leftOut }));
    onClose();
  };
  return (
    <>
      <section className="max-h-[55dvh] overflow-auto border border-hair" aria-label="Preview">
        <table className="w-full text-small">
          <thead className="sticky top-0 bg-sheet">
            <tr className="border-b border-hair text-left">
              <th className="px-2 py-1.5">Row</th>
              {table.headings.map((heading, at) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: two columns may have one heading; their place is who they are
                <th key={at} className="px-2 py-1.5 font-normal">
                  <span className="block text-soft">{heading || `Column ${at + 1}`}</span>
                  <select
                    aria-label={`Column ${heading || at + 1} holds`}
                    value={columns[at] ?? 'none'}
                    onChange={(event) =>
                      choose(at, LIST_FIELDS.find((field) => field === event.target.value) ?? 'none')
                    }
                    className={`min-h-7 rounded-control border border-hair bg-paper pointer-coarse:min-h-11 ${columns[at] === 'none' ? 'text-soft' : 'font-strong'}`}
                  >
                    {LIST_FIELDS.map((field) => (
                      <option key={field} value={field}>
                        {field === 'none' ? 'left out' : field}
                      </option>
                    ))}
                  </select>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.slice(0, ROWS_SHOWN).map((row, index) => (
              <tr key={row.line} className="border-b border-grid align-top last:border-b-0">
                <th scope="row" className="px-2 py-1 text-left font-normal whitespace-nowrap">
                  <span className="inline-flex items-center gap-1">
                    <Drop verdict={row.camera ? 'ok' : 'will-not-work'} size={18} /> {row.line}
                  </span>
                </th>
                {row.problem === null ? (
                  table.headings.map((heading, at) => (
                    // biome-ignore lint/suspicious/noArrayIndexKey: see above
                    <td key={`${heading}-${at}`} className={`px-2 py-1 ${columns[at] === 'none' ? 'text-soft' : ''}`}>
                      {cellShown(columns[at] ?? 'none', table.rows[index]?.cells[at] ?? '')}
                    </td>
                  ))
                ) : (
                  <td colSpan={table.headings.length} className="px-2 py-1">
                    <b>{row.name || 'without a name'}</b> <span className="text-brick">{row.problem}</span>
                  </td>
                )}
              </tr>
            ))}
          </tbody>
        </table>
      </section>
      <div className="mt-3 flex flex-wrap items-center gap-2">
        {done !== null ? (
          <RowsRead done={done} of={table.rows.length} />
        ) : (
          <p className="mr-auto">
            {good.length} of {rows.length} fit
            {leftOut > 0 && (
              <span className="text-brick">
                ; {leftOut} {leftOut === 1 ? 'is' : 'are'} left out
              </span>
            )}
            {taken > 0 &&
              `. ${taken === 1 ? 'One path contains' : `${taken} paths contain`} a login: it is kept with the passwords`}
            {rows.length > ROWS_SHOWN && `. The first ${ROWS_SHOWN} are shown.`}
          </p>
        )}
        <Button onClick={onClose}>Cancel</Button>
        <Button kind="main" disabled={good.length === 0 || done !== null} onClick={take}>
          Add {sayMany(good.length, 'camera')}
        </Button>
      </div>
    </>
  );
}
