import { useEffect, useRef, useState } from 'react';
import { sayMany } from '../../../core/base/say.ts';
import { CARD_FILE_ENDING, readCardFile, writeCardFile } from '../../../core/document/chapters/models/card-file.ts';
import { type Model, nameOfModel } from '../../../core/document/chapters/models/model-card.ts';
import { commandIssued, selectSite } from '../../store/site-slice.ts';
import { useAppDispatch, useAppSelector } from '../../store/store.ts';
import { Button } from '../../ui/button.tsx';
import { DialogFrame } from '../../ui/dialog-frame.tsx';
import { FileInput } from '../../ui/file-input.tsx';
import { download } from '../../ui/site-files.ts';
import { ModelForm } from './model-form.tsx';
import { keepCards, listCards } from './model-library.ts';

interface ModelPickerProps {
  /** A card to change, or one to be picked. */
  readonly edited: 'pick' | Model;
  readonly taken: readonly string[];
  readonly onClose: () => void;
  readonly onPicked: (modelId: string) => void;
}

/** The person's own cards: pick one, write one, take them in from a file, give them away as one. */
export function ModelPicker({ edited, taken, onClose, onPicked }: ModelPickerProps) {
  const dispatch = useAppDispatch();
  const site = useAppSelector(selectSite);
  const [library, setLibrary] = useState<readonly Model[]>([]);
  const [written, setWritten] = useState<Model | 'new' | null>(edited === 'pick' ? null : edited);
  const [told, setTold] = useState<{ readonly isError: boolean; readonly text: string } | null>(null);
  const file = useRef<HTMLInputElement>(null);
  useEffect(() => {
    listCards().then(setLibrary, () =>
      setTold({ isError: true, text: 'This browser keeps nothing: cards of other sites cannot be shown.' }),
    );
  }, []);
  const inSite = new Set(site.models.map(({ id }) => id));
  const cards = [...site.models, ...library.filter(({ id }) => !inSite.has(id))];

  /** Into the site, which must hold all that it is judged by, and into the library for the next one. */
  const keep = async (card: Model): Promise<void> => {
    dispatch(commandIssued({ kind: 'putModel', model: card }));
    await keepCards([card]).catch(() => {});
    onPicked(card.id);
  };
  const takeIn = async (file: File): Promise<void> => {
    const read = readCardFile(await file.text());
    if (!read.ok) return setTold({ isError: true, text: `${read.error.message} Nothing was taken in.` });
    try {
      await keepCards(read.value);
      setLibrary(await listCards());
      setTold({ isError: false, text: `${sayMany(read.value.length, 'card')} taken in from ${file.name}.` });
    } catch {
      setTold({ isError: true, text: 'The browser’s store is full or blocked. Nothing was taken in.' });
    }
  };
  return (
    <DialogFrame
      title={written === null ? 'Model cards' : written === 'new' ? 'New model card' : nameOfModel(written)}
      description={
        written === null
          ? 'Your own knowledge of makes and models, kept beyond one site.'
          : 'What is not known stays empty: it is judged as not known, never as fine.'
      }
      isOpen
      isWide={written !== null}
      onOpenChange={onClose}
    >
      {written !== null ? (
        <ModelForm
          card={written === 'new' ? null : written}
          onLeave={edited === 'pick' ? () => setWritten(null) : onClose}
          onKeep={(card) => void keep(card)}
        />
      ) : (
        <>
          <ul className="mb-3 max-h-[45dvh] overflow-auto border border-hair">
            {cards.map((card) => (
              <li key={card.id} className="border-b border-hair last:border-b-0">
                <button
                  type="button"
                  disabled={taken.includes(card.id)}
                  onClick={() => (inSite.has(card.id) ? onPicked(card.id) : void keep(card))}
                  className="flex min-h-9 w-full items-baseline gap-3 px-3 py-1.5 text-left hover:bg-verdigris-wash disabled:opacity-50 pointer-coarse:min-h-11"
                >
                  <span>{nameOfModel(card)}</span>
                  <span className="ml-auto text-small text-soft">
                    {taken.includes(card.id)
                      ? 'is among them'
                      : inSite.has(card.id)
                        ? 'of this site'
                        : 'of the library'}
                  </span>
                </button>
              </li>
            ))}
            {cards.length === 0 && <li className="px-3 py-2 text-soft">No card yet.</li>}
          </ul>
          {told && <p className={`mb-3 text-small ${told.isError ? 'text-brick' : 'text-soft'}`}>{told.text}</p>}
          <span className="flex flex-wrap justify-end gap-2">
            <FileInput
              ref={file}
              label="File of cards"
              accept=".json,application/json"
              onFile={(chosen) => void takeIn(chosen)}
            />
            <Button onClick={() => file.current?.click()}>Take in a file</Button>
            <Button
              disabled={cards.length === 0}
              onClick={() => download(`models${CARD_FILE_ENDING}`, 'application/json', writeCardFile(cards))}
            >
              Save as a file
            </Button>
            <Button kind="main" onClick={() => setWritten('new')}>
              Write a card
            </Button>
          </span>
        </>
      )}
    </DialogFrame>
  );
}
