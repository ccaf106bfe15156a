import { expose } from 'comlink';
import { createJudgeWork } from './judge-work.ts';

expose(createJudgeWork());
