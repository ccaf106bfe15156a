import { expose } from 'comlink';
import * as editing from './editing.ts';
import { haveEditing } from './edits.ts';
import { createJudgeWork } from './judge-work.ts';

haveEditing(editing);
expose(createJudgeWork());
