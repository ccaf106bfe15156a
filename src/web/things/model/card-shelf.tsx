import { type ReactNode, useRef, useState } from 'react';
import { CARD_FILE_ENDING, writeCardFile } from '../../../core/document/chapters/models/card-file.ts';
import type { Model } from '../../../core/document/chapters/models/model-card.ts';
import { nameOfModel } from '../../../core/document/chapters/models/model-name.ts';
import { sayCodecs, sayFedBy, sayFocal, saySize } from '../../../core/figures/written-figures.ts';
import { Button } from '../../ui/button.tsx';
import { download } from '../../ui/download.ts';
import { FileInput } from '../../ui/file-input.tsx';
import { TextField } from '../../ui/text-field.tsx';
import type { ListedCard, useCards } from './use-cards.ts';

/** A card in a line: what one tells models apart by. */
function gistOf({ lenses, codecs, power }: Model): string {
  const [lens] = lenses;
  const parts = [
    lens ? saySize(lens) : '',
    lens ? sayFocal({ wideMm: lens.focalWideMm, teleMm: lens.focalTeleMm }) : '',
    sayCodecs(codecs),
    sayFedBy(power),
  ].filter((part) => part !== '');
  return parts.length > 0 ? parts.join(' · ') : 'only its name is known';
}

interface CardShelfProps {
  readonly shelf: ReturnType<typeof useCards>;
  /** What a press on a card does; `null` where it can do nothing. */
  readonly onTake: (card: ListedCard) => (() => void) | null;
  readonly aside: (card: ListedCard) => ReactNode;
  readonly onNew: () => void;
}

/** All cards by name, searched as one types; a new one, a file in, a file out. */
export function CardShelf({ shelf, onTake, aside, onNew }: CardShelfProps) {
  const [sought, setSought] = useState('');
  const file = useRef<HTMLInputElement>(null);
  const { cards, told, forgotten } = shelf;
  const words = sought.trim().toLowerCase();
  const shown = cards.filter(({ card }) => `${nameOfModel(card)} ${card.notes}`.toLowerCase().includes(words));
  return (
    <>
      {cards.length > 5 && (
        <TextField
          label="Find a model card"
          type="search"
          className="mb-2"
          value={sought}
          onChange={(event) => setSought(event.target.value)}
        />
      )}
      <ul aria-label="Model cards" className="mb-3 max-h-[50dvh] overflow-auto border border-hair">
        {shown.map((listed) => {
          const take = onTake(listed);
          return (
            <li
              key={listed.card.id}
              className="flex flex-wrap items-center gap-x-3 border-b border-hair px-3 py-1 last:border-b-0"
            >
              <button
                type="button"
                disabled={take === null}
                onClick={take ?? undefined}
                className="min-h-9 min-w-0 flex-1 text-left hover:underline disabled:opacity-50 pointer-coarse:min-h-11"
              >
                <span className="block">{nameOfModel(listed.card)}</span>
                <span className="block truncate text-small text-soft">{gistOf(listed.card)}</span>
              </button>
              {aside(listed)}
            </li>
          );
        })}
        {shown.length === 0 && (
          <li className="px-3 py-2 text-soft">
            {cards.length === 0
              ? 'No model card yet. Write one from the box or its data sheet.'
              : 'No model card of that name.'}
          </li>
        )}
      </ul>
      <p role="status" className={`text-small ${told?.isError ? 'mb-3 text-brick' : 'text-soft'}`}>
        {told?.text}
      </p>
      {forgotten && (
        <p className="mb-3 flex items-center gap-2 text-small">
          {nameOfModel(forgotten)} is removed from the library.{' '}
          <Button kind="quiet" onClick={() => void shelf.putBack()}>
            Restore it
          </Button>
        </p>
      )}
      <span className="flex flex-wrap justify-end gap-2">
        <FileInput
          ref={file}
          label="File of model cards"
          accept=".json,application/json"
          onFile={(chosen) => void shelf.takeIn(chosen)}
        />
        <Button onClick={() => file.current?.click()}>Import a file</Button>
        <Button
          disabled={shown.length === 0}
          onClick={() =>
            download(`models${CARD_FILE_ENDING}`, 'application/json', writeCardFile(shown.map(({ card }) => card)))
          }
        >
          {words === '' ? 'Save all as a file' : 'Save these as a file'}
        </Button>
        <Button kind="main" onClick={onNew}>
          Write a model card
        </Button>
      </span>
    </>
  );
}
