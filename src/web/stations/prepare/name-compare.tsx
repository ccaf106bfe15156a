import { capital } from '../../../core/base/say.ts';
import { compareNames, firstDifference, NAME_WORDS } from '../../../core/firmware/image-name.ts';

/** Two names letter over letter, the first odd one underlined: “l” and “I”, a blank at the end, a hidden ending are seen. */
export function NameCompare({ required, found }: { required: string; found: string }) {
  const verdict = compareNames(required, found);
  const odd = firstDifference(required, found);
  const line = (name: string, label: string) => (
    <tr>
      <th scope="row" className="pr-3 text-left text-small font-normal text-soft">
        {label}
      </th>
      <td className="font-mono whitespace-pre">
        {[...name.slice(0, 80)].map((sign, at) => (
          <span
            // biome-ignore lint/suspicious/noArrayIndexKey: letters stand by their place
            key={at}
            className={at === odd ? 'border-b-2 border-brick text-brick' : odd !== null && at > odd ? 'text-soft' : ''}
          >
            {sign === ' ' ? '␣' : sign}
          </span>
        ))}
        {odd !== null && odd >= name.length && <span className="border-b-2 border-brick text-brick">·</span>}
      </td>
    </tr>
  );
  return (
    <div>
      <table>
        <tbody>
          {line(required, 'expected')}
          {line(found, 'on the SD card')}
        </tbody>
      </table>
      <p className={`text-small ${verdict === 'ok' ? 'text-soft' : 'text-brick'}`}>{capital(NAME_WORDS[verdict])}.</p>
    </div>
  );
}
