import { useState } from 'react';
import { nameOfModel } from '../../../core/document/chapters/models/model-name.ts';
import { freeModel } from '../../../core/document/things.ts';
import { newId } from '../../store/new-id.ts';
import { Button } from '../../ui/button.tsx';
import { DialogFrame } from '../../ui/dialog-frame.tsx';
import { ThingActs } from '../thing/index.ts';
import { CardShelf } from './card-shelf.tsx';
import { ModelForm } from './model-form.tsx';
import { type ListedCard, useCards } from './use-cards.ts';

/** All model cards, of this site and of the library: changed, copied, removed, taken in and given away. */
export function CardsSlip({ onClose }: { onClose: () => void }) {
  const shelf = useCards();
  const [written, setWritten] = useState<ListedCard | 'new' | null>(null);
  const back = (): void => setWritten(null);
  const copyInLibrary = ({ card }: ListedCard): void => {
    const taken = shelf.cards.map((one) => one.card.model);
    void shelf.keepInLibrary({ ...card, id: newId('model'), model: freeModel(card.model, taken) });
  };
  return (
    <DialogFrame
      title={written === null ? 'Model cards' : written === 'new' ? 'New model card' : nameOfModel(written.card)}
      description={
        written === null
          ? 'Your own knowledge of makes and models: those that this site is judged by, and the library of this browser.'
          : 'What is not known stays empty: it is judged as not known, never as fine.'
      }
      isOpen
      isWide
      onOpenChange={onClose}
    >
      {written !== null ? (
        <ModelForm
          key={written === 'new' ? 'new' : written.card.id}
          card={written === 'new' ? null : written.card}
          onLeave={back}
          onKeep={(card) => {
            void (written !== 'new' && !written.isOfSite ? shelf.keepInLibrary(card) : shelf.keep(card));
            back();
          }}
          acts={
            written !== 'new' &&
            written.isOfSite && <ThingActs kind="model" id={written.card.id} onGone={back} onCopied={back} />
          }
        />
      ) : (
        <CardShelf
          shelf={shelf}
          onNew={() => setWritten('new')}
          onTake={(listed) => () => setWritten(listed)}
          aside={(listed) =>
            listed.isOfSite ? (
              <span className="text-small text-soft">of this site</span>
            ) : (
              <span className="flex flex-wrap items-center gap-1 text-small text-soft">
                of the library
                <Button
                  kind="quiet"
                  aria-label={`Add ${nameOfModel(listed.card)} to this site`}
                  onClick={() => void shelf.keep(listed.card)}
                >
                  Add to this site
                </Button>
                <Button
                  kind="quiet"
                  aria-label={`Copy ${nameOfModel(listed.card)}`}
                  onClick={() => copyInLibrary(listed)}
                >
                  Copy
                </Button>
                <Button
                  kind="quiet"
                  aria-label={`Remove ${nameOfModel(listed.card)} from the library`}
                  onClick={() => void shelf.forget(listed.card)}
                >
                  Remove
                </Button>
              </span>
            )
          }
        />
      )}
    </DialogFrame>
  );
}
