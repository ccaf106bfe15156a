import { headerOf } from '../http/headers.ts';
import type { ClientSignal } from './client-moves.ts';
import type { Exchange } from './conversation.ts';
import type { Login } from './login.ts';
import { meaningOf } from './status-codes.ts';
import type { TrackPlan } from './track-plan.ts';

interface StepContext {
  readonly login: Login;
  readonly plan: TrackPlan | null;
  readonly hasAccount: boolean;
}

/** How an exchange ended the step that it belongs to, and what is noted beside it; OPTIONS may be refused by anybody. */
export function outcomeOfStep(
  { request, response }: Exchange,
  signal: ClientSignal,
  context: StepContext,
): { readonly ok: boolean; readonly note: string | null } {
  const isFirstAsk = signal === 'unauthorized' && !request.authorised;
  const isLoginHeld = isFirstAsk && request.step === 'authenticate';
  const ok = signal === 'success' || (isFirstAsk && !isLoginHeld && context.hasAccount) || request.step === 'options';
  if (isFirstAsk) return { ok, note: isLoginHeld ? 'the login was not sent' : 'asks for a login' };
  if (signal !== 'success') return { ok, note: meaningOf(response.status).means };
  switch (request.step) {
    case 'authenticate':
      return { ok, note: context.login.describe() };
    case 'options':
      return { ok, note: headerOf(response, 'Server') ?? null };
    case 'setup':
      return { ok, note: context.plan?.describe(headerOf(response, 'Transport') ?? '') ?? null };
    default:
      return { ok, note: null };
  }
}
