// The typed client. Every failure becomes an Error whose message is the server's sentence.
import createClient, { type Middleware } from 'openapi-fetch';
import type { components, paths } from './schema';

export type Schemas = components['schemas'];
export type Finding = Schemas['FindingRecord'];
export type Suggestion = Schemas['SuggestionRecord'];
export type Report = Schemas['SubmissionReportRecord'];
export type Spec = Schemas['AssignmentRecord'];
export type Desk = Schemas['Desk'];
export type ClassMember = Schemas['ClassMember'];

export class ApiError extends Error {
  constructor(
    message: string,
    public status: number,
    /** What is there now, where someone else was quicker (409). */
    public current?: Record<string, unknown>
  ) {
    super(message);
  }
}

export function csrfToken(): string {
  return document.cookie.match(/(?:^|; )csrftoken=([^;]+)/)?.[1] ?? '';
}

const guard: Middleware = {
  onRequest({ request }) {
    if (request.method !== 'GET') request.headers.set('X-CSRFToken', csrfToken());
    return request;
  },
  async onResponse({ response }) {
    if (response.ok) return undefined;
    const current = response.status === 409 ? await currentOf(response.clone()) : undefined;
    throw new ApiError(await sentence(response), response.status, current);
  }
};

async function currentOf(response: Response): Promise<Record<string, unknown> | undefined> {
  const data: unknown = await response.json().catch(() => null);
  return data && typeof data === 'object' && 'current' in data
    ? (data.current as Record<string, unknown>)
    : undefined;
}

export async function sentence(response: Response): Promise<string> {
  if (response.status === 404) return 'This is not there, or not yours to see.';
  const data: unknown = await response.json().catch(() => null);
  if (data && typeof data === 'object' && 'detail' in data) return String(data.detail);
  return `The server could not do that (${response.status}). Try again; if it stays, tell whoever runs it.`;
}

export const api = createClient<paths>({ credentials: 'same-origin' });
api.use(guard);

/** The data of an answer; the guard has thrown for every other outcome. */
export async function take<T>(answer: Promise<{ data?: T }>): Promise<T> {
  return (await answer).data as T;
}
