import { useState } from 'react';
import { sayMany } from '../../../core/base/say.ts';
import { answerTitle } from '../../../core/gallery/answers.ts';
import { standings, type Take } from '../../../core/gallery/score.ts';
import { Button } from '../../ui/button.tsx';
import { Panel } from '../../ui/panel.tsx';

interface ScorePanelProps {
  readonly takes: readonly Take[];
  readonly onSet: (takes: readonly Take[]) => void;
}

/** What somebody knows by now, and what they take for something else. */
export function ScorePanel({ takes, onSet }: ScorePanelProps) {
  const [forgotten, setForgotten] = useState<readonly Take[] | null>(null);
  const rows = standings(takes);
  const right = takes.filter(({ guess, was }) => guess === was).length;
  return (
    <Panel
      title="Score"
      aside={takes.length === 0 ? 'nothing answered yet' : `${right} of ${takes.length} right`}
      actions={
        <>
          {forgotten && takes.length === 0 && (
            <Button
              kind="quiet"
              onClick={() => {
                onSet(forgotten);
                setForgotten(null);
              }}
            >
              Restore it
            </Button>
          )}
          {takes.length > 0 && (
            <Button
              kind="quiet"
              onClick={() => {
                setForgotten(takes);
                onSet([]);
              }}
            >
              Start again
            </Button>
          )}
        </>
      }
    >
      {rows.length === 0 ? (
        <p className="text-soft">Answer one: what you know and what you mix up is counted here, by cause.</p>
      ) : (
        <table className="w-full text-left">
          <thead className="text-small text-soft">
            <tr>
              <th scope="col" className="font-normal">
                Cause
              </th>
              <th scope="col" className="w-16 text-right font-normal">
                right
              </th>
            </tr>
          </thead>
          <tbody>
            {rows.map(({ was, seen, right: known, takenFor }) => (
              <tr key={was} className="border-t border-grid align-top">
                <td className="py-1">
                  {answerTitle(was)}
                  {takenFor.length > 0 && (
                    <span className="block text-small text-brass">
                      answered as{' '}
                      {takenFor
                        .map(
                          ({ guess, count }) =>
                            `“${answerTitle(guess)}”${count > 1 ? `, ${sayMany(count, 'time')}` : ''}`,
                        )
                        .join('; ')}
                    </span>
                  )}
                </td>
                <td className="py-1 text-right tabular-nums">
                  {known} of {seen}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </Panel>
  );
}
