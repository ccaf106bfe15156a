import { TEXT_LIMITS } from '../../../core/base/limits.ts';
import { capital } from '../../../core/base/say.ts';
import { CRITERIA } from '../../../core/firmware/decision.ts';
import { MARK_WORDS } from '../../../core/firmware/guide.ts';
import { MARKS } from '../../../core/firmware/marks.ts';
import { OPTION_WORDS, OPTIONS } from '../../../core/firmware/options.ts';
import { verdictAt } from '../../../core/lanes/lane-types.ts';
import { decisionOf } from '../../../core/stations/prepare/index.ts';
import { selectLanesById } from '../../store/lanes-slice.ts';
import { useAppSelector } from '../../store/store.ts';
import { Button } from '../../ui/button.tsx';
import { KeptText } from '../../ui/kept-text.tsx';
import { Panel } from '../../ui/panel.tsx';
import { SelectField } from '../../ui/text-field.tsx';
import { useSiteView } from '../use-site-view.ts';
import type { BenchProps } from './bench-props.ts';

const NOT_KNOWN = { value: '', label: 'not known' };
const ANSWERS = [NOT_KNOWN, { value: 'yes', label: 'yes' }, { value: 'no', label: 'no' }];
const QUESTIONS = [
  { name: 'isOwn', label: 'It belongs to the customer' },
  { name: 'isOnlyOne', label: 'It is the only camera at a place that must be covered' },
  { name: 'hasMainsInside', label: 'Mains voltage inside its case' },
  { name: 'hasRescue', label: 'A recovery loader or programmer is known' },
] as const;

/** Keep, side branch, community image or replace: a score with its reasons. The person decides. */
export function DecidePanel({ camera, reflash, set }: BenchProps) {
  const view = useSiteView();
  const lane = useAppSelector(selectLanesById)[camera.id];
  const picture = verdictAt(lane, 'choose');
  const { scored, best, isClose } = decisionOf(camera, view, picture);
  return (
    <Panel title="Decide" aside="0 to 100; what is not known counts as half">
      <div className="overflow-x-auto">
        <table className="w-full text-small">
          <thead>
            <tr className="border-b border-hair text-left">
              <th className="py-1 pr-2 font-normal text-soft" scope="col">
                weighed
              </th>
              {OPTIONS.map((option) => (
                <th key={option} scope="col" className="py-1 pr-2 align-bottom">
                  {capital(OPTION_WORDS[option])}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {CRITERIA.map(({ id, label, weight }) => (
              <tr key={id} className="border-b border-hair align-top">
                <th scope="row" className="py-1 pr-2 text-left font-normal">
                  {label}
                  <span className="block text-soft">{Math.round(weight * 100)} of 100</span>
                </th>
                {scored.map(({ option, byCriterion }) => (
                  <td key={option} className="py-1 pr-2">
                    <span className="font-mono">
                      {byCriterion[id].value === null ? '?' : Math.round(byCriterion[id].value * 100)}
                    </span>
                    <span className="block text-soft">{byCriterion[id].why}</span>
                  </td>
                ))}
              </tr>
            ))}
            <tr className="align-top">
              <th scope="row" className="py-1.5 pr-2 text-left">
                score
              </th>
              {scored.map(({ option, score, vetoes, open }) => (
                <td key={option} className="py-1.5 pr-2">
                  <span className="flex flex-wrap items-center gap-2">
                    <b className="font-mono text-name">{Math.round(score * 100)}</b>
                    {option === best && (
                      <span className="text-verdigris">
                        {isClose ? 'within 10 of another: goes back most easily' : 'by its score'}
                      </span>
                    )}
                  </span>
                  {vetoes.map((text) => (
                    <span key={text} className="block text-brick">
                      {text}
                    </span>
                  ))}
                  {open.map((text) => (
                    <span key={text} className="block text-brass">
                      {text}
                    </span>
                  ))}
                  <Button
                    className="mt-1 text-small"
                    aria-pressed={reflash.decision === option}
                    kind={reflash.decision === option ? 'main' : 'plain'}
                    aria-label={`Decide: ${OPTION_WORDS[option]}`}
                    onClick={() => set({ decision: reflash.decision === option ? null : option })}
                  >
                    {reflash.decision === option ? 'Decided' : 'Decide'}
                  </Button>
                </td>
              ))}
            </tr>
          </tbody>
        </table>
      </div>
      <div className="mt-3 grid grid-cols-2 items-start gap-x-3 gap-y-2 md:grid-cols-4">
        {QUESTIONS.map(({ name, label }) => (
          <SelectField
            key={name}
            label={label}
            value={reflash[name] === null ? '' : reflash[name] ? 'yes' : 'no'}
            onChange={(value) => set({ [name]: value === '' ? null : value === 'yes' })}
            options={ANSWERS}
          />
        ))}
        <KeptText
          label="Hardware revision on its label"
          maxLength={TEXT_LIMITS.label}
          value={reflash.label.hardwareRev}
          onKeep={(hardwareRev) => set({ label: { ...reflash.label, hardwareRev } })}
        />
        <KeptText
          label="Firmware version"
          maxLength={TEXT_LIMITS.label}
          value={reflash.label.version}
          onKeep={(version) => set({ label: { ...reflash.label, version } })}
        />
        {MARKS.map((mark) => (
          <KeptText
            key={mark}
            label={`Its ${MARK_WORDS[mark]}`}
            maxLength={TEXT_LIMITS.label}
            value={reflash.marks[mark]}
            onKeep={(text) => set({ marks: { ...reflash.marks, [mark]: text } })}
          />
        ))}
      </div>
      <p className="mt-2 text-small text-soft">
        The markings are on the board: unplug it before you open a case, and open none with mains inside.
      </p>
    </Panel>
  );
}
