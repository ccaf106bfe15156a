import { useState } from 'react';
import type { Verdict } from '../../../core/base/verdict.ts';
import { VERDICT_WORDS } from '../../../core/base/verdict.ts';
import type { Camera } from '../../../core/document/chapters/cameras/camera.ts';
import type { Model } from '../../../core/document/chapters/models/model-card.ts';
import { nameOfModel } from '../../../core/document/chapters/models/model-name.ts';
import type { Facts } from '../../../core/findings/rule.ts';
import type { ChooseFacts } from '../../../core/stations/choose/index.ts';
import { judgeChoice, weigh } from '../../../core/stations/choose/index.ts';
import { commandIssued } from '../../store/site-slice.ts';
import { useAppDispatch } from '../../store/store.ts';
import { ModelPicker } from '../../things/model/index.ts';
import { Button } from '../../ui/button.tsx';
import { Drop } from '../../ui/drop.tsx';
import { Panel } from '../../ui/panel.tsx';

const TEXT: Readonly<Record<Verdict, string>> = {
  ok: 'text-ink',
  tight: 'text-brass',
  'will-not-work': 'text-brick',
  unknown: 'text-soft',
};
const MAX_CANDIDATES = 4;

interface CandidatesTableProps {
  readonly camera: Camera;
  readonly weighed: readonly { readonly model: Model; readonly facts: Facts<ChooseFacts> }[];
  /** The model that is drawn and found about. */
  readonly looked: string | null;
  readonly onLook: (modelId: string) => void;
}

/** Need against models: what sets them apart first; each answer with its reason. */
export function CandidatesTable({ camera, weighed, looked, onLook }: CandidatesTableProps) {
  const dispatch = useAppDispatch();
  const [opened, setOpened] = useState<string | null>(null);
  const [edited, setEdited] = useState<'pick' | Model | null>(null);
  const verdicts = weighed.map(({ model, facts }) => ({ model, verdict: judgeChoice(facts).verdict }));
  const rows = weigh(weighed.map(({ facts }) => facts));
  const set = (candidates: readonly string[]): void =>
    void dispatch(commandIssued({ kind: 'setCandidates', cameraId: camera.id, candidates }));
  const weighedIds = weighed.map(({ model }) => model.id);
  const lookedModel = weighed.find(({ model }) => model.id === looked)?.model;
  const firstAlike = rows.findIndex(({ decides }) => !decides);

  return (
    <Panel
      title="Candidates"
      aside={weighed.length > 1 ? 'what sets them apart comes first' : undefined}
      actions={
        weighed.length < MAX_CANDIDATES && (
          <Button kind={weighed.length === 0 ? 'main' : 'plain'} onClick={() => setEdited('pick')}>
            Add a model
          </Button>
        )
      }
    >
      {weighed.length === 0 ? (
        <p className="text-soft">Compare two to four models.</p>
      ) : (
        <div className="-mx-1 overflow-x-auto">
          <table className="w-full text-small">
            <thead>
              <tr className="border-b border-hair align-bottom">
                <th className="py-1 pr-2 text-left text-soft">Need</th>
                {verdicts.map(({ model, verdict }) => (
                  <th key={model.id} className="w-[23%] px-1 py-1 text-left">
                    <button
                      type="button"
                      aria-pressed={model.id === looked}
                      onClick={() => onLook(model.id)}
                      className={`flex items-center gap-1 border-b-2 text-left leading-4 ${model.id === looked ? 'border-verdigris' : 'border-transparent hover:border-hair'}`}
                    >
                      <Drop verdict={verdict} size={16} label={VERDICT_WORDS[verdict]} />
                      <span>{nameOfModel(model)}</span>
                    </button>
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {rows.map(({ id, label, answers }, at) => (
                <tr
                  key={id}
                  className={`border-b border-hair align-top last:border-b-0 ${at === firstAlike && at > 0 ? 'border-t-2 border-t-soft' : ''}`}
                >
                  <th scope="row" className="py-1.5 pr-2 text-left font-normal">
                    <button
                      type="button"
                      aria-expanded={opened === id}
                      onClick={() => setOpened(opened === id ? null : id)}
                      className="text-left decoration-hair underline-offset-2 hover:underline"
                    >
                      {label}
                    </button>
                  </th>
                  {answers.map((answer, column) => (
                    <td key={weighedIds[column]} className="px-1 py-1.5" title={answer.reason}>
                      <span className={`flex items-start gap-1 ${TEXT[answer.verdict]}`}>
                        {answer.verdict !== 'ok' && (
                          <Drop verdict={answer.verdict} size={14} label={VERDICT_WORDS[answer.verdict]} />
                        )}
                        <span className="font-mono [overflow-wrap:anywhere]">{answer.said}</span>
                      </span>
                      {opened === id && <span className="block text-soft">{answer.reason}</span>}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      {lookedModel && (
        <div className="mt-2 flex flex-wrap items-center gap-2 border-t border-hair pt-2">
          {camera.modelId === lookedModel.id ? (
            <p className="font-strong">{nameOfModel(lookedModel)} is chosen.</p>
          ) : (
            <Button
              kind="main"
              onClick={() =>
                dispatch(commandIssued({ kind: 'chooseModel', cameraId: camera.id, modelId: lookedModel.id }))
              }
            >
              Choose {nameOfModel(lookedModel)}
            </Button>
          )}
          <Button onClick={() => setEdited(lookedModel)}>Its model card</Button>
          {camera.modelId !== lookedModel.id && (
            <Button kind="quiet" onClick={() => set(weighedIds.filter((id) => id !== lookedModel.id))}>
              Remove
            </Button>
          )}
        </div>
      )}
      {edited !== null && (
        <ModelPicker
          edited={edited}
          taken={weighedIds}
          onClose={() => setEdited(null)}
          onPicked={(modelId) => {
            if (!weighedIds.includes(modelId)) set([...weighedIds, modelId]);
            onLook(modelId);
            setEdited(null);
          }}
        />
      )}
    </Panel>
  );
}
