import { useState } from 'react';
import type { Model } from '../../../core/document/chapters/models/model-card.ts';
import { nameOfModel } from '../../../core/document/chapters/models/model-name.ts';
import { DialogFrame } from '../../ui/dialog-frame.tsx';
import { CardShelf } from './card-shelf.tsx';
import { ModelForm } from './model-form.tsx';
import { useCards } from './use-cards.ts';

interface ModelPickerProps {
  /** A card to change, or one to be picked. */
  readonly edited: 'pick' | Model;
  readonly taken: readonly string[];
  readonly onClose: () => void;
  readonly onPicked: (modelId: string) => void;
}

/** The person's own cards: pick one, or write one. */
export function ModelPicker({ edited, taken, onClose, onPicked }: ModelPickerProps) {
  const shelf = useCards();
  const [written, setWritten] = useState<Model | 'new' | null>(edited === 'pick' ? null : edited);
  const keep = async (card: Model): Promise<void> => {
    await shelf.keep(card);
    onPicked(card.id);
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
        <CardShelf
          shelf={shelf}
          onNew={() => setWritten('new')}
          onTake={({ card, isOfSite }) =>
            taken.includes(card.id) ? null : () => (isOfSite ? onPicked(card.id) : void keep(card))
          }
          aside={({ card, isOfSite }) => (
            <span className="text-small text-soft">
              {taken.includes(card.id) ? 'is among them' : isOfSite ? 'of this site' : 'of the library'}
            </span>
          )}
        />
      )}
    </DialogFrame>
  );
}
