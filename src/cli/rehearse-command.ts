import { text as readAll } from 'node:stream/consumers';
import { parseArgs } from 'node:util';
import { object, string, ValidationError } from 'yup';
import { inputsSchema } from '../contract/standin-api.ts';
import { readJson } from '../core/base/read-json.ts';
import { guideShape } from '../core/document/chapters/models/guide-shape.ts';
import { guideProblem, type ReflashGuide, USUAL_GUIDE } from '../core/firmware/guide.ts';
import { type RehearsedInput, rehearse } from '../core/firmware/rehearsal.ts';
import { print, printJson } from './print.ts';
import { readText } from './read-site.ts';
import { InputError, UsageError } from './usage-error.ts';

interface Script {
  readonly guide?: Partial<ReflashGuide>;
  readonly firmware?: 'stock' | 'new';
  readonly inputs: readonly RehearsedInput[];
}

const scriptSchema = object({
  guide: object().optional(),
  firmware: string()
    .strict()
    .oneOf(['stock', 'new'] as const)
    .optional(),
  inputs: inputsSchema.required('inputs: a list of what is done is needed'),
})
  .noUnknown()
  .strict()
  .required();

/** A script as it lies in a file; a guide that says less than all is filled up with what is usual. */
function readScript(text: string): { readonly script: Script; readonly guide: ReflashGuide } {
  const read = readJson(text);
  if (!read.ok) throw new InputError(`The script cannot be read. ${read.error.message}`);
  const parsed = read.value;
  try {
    const script = scriptSchema.validateSync(parsed, { strict: true }) as Script; // the schema says the same
    const guide = guideShape.validateSync({ ...USUAL_GUIDE, ...script.guide }, { strict: true });
    const problem = guideProblem(guide);
    if (problem) throw new InputError(`guide.${problem.field}: ${problem.text}`);
    if (guide.imageName === '')
      throw new InputError('guide.imageName: the name that its boot loader looks for is needed.');
    return { script, guide };
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    throw new InputError(`The script does not fit: ${error.message}.`);
  }
}

/** Plays a rehearsal on the simulated camera, and prints each state. Exit code 0 when it runs at the end, 1 when it does not. */
export async function rehearseCommand(args: readonly string[]): Promise<number> {
  const { values, positionals } = parseArgs({
    args: [...args],
    allowPositionals: true,
    options: { json: { type: 'boolean', default: false } },
  });
  const [file, ...rest] = positionals;
  if (rest.length > 0) throw new UsageError('Expected one script.');
  const text = file === undefined ? await readAll(process.stdin) : await readText(file);
  const { script, guide } = readScript(text);
  const { camera, states } = rehearse(guide, script.firmware ?? 'stock', script.inputs);
  const { phase, firmware } = camera;
  if (values.json) printJson({ states, end: { phase, firmware, listens: states.at(-1)?.listens ?? false } });
  else
    for (const { atMs, did, lamp, phase: then, why } of states)
      print(
        `${(atMs / 1000).toFixed(1).padStart(8)} s  ${did.padEnd(8)} ${then.padEnd(10)} LED ${lamp.padEnd(20)} ${why}\n`,
      );
  return phase === 'running' ? 0 : 1;
}
