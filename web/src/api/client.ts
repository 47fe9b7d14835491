/** The API client: generated types, the CSRF token, and problems as one kind of error. */
import createClient, { type Middleware } from 'openapi-fetch'
import { once } from './once'
import type { components, paths } from './schema'

export type Schemas = components['schemas']
export type Problem = Schemas['ProblemOut']
export type Sheet = Schemas['Sheet']
export type Worked = Schemas['Worked']
export type Figures = Schemas['Figures']

/** Input the server refused: every problem names its field. */
export class Refused extends Error {
  /** `nearest` is the sheet that comes nearest, where what was asked for cannot be had. */
  constructor(
    readonly problems: Problem[],
    readonly nearest: Sheet | null = null,
  ) {
    super(problems.map((p) => `${p.message}. ${p.remedy}`).join(' '))
  }
}

/** Somebody else was first. `body` says what is there now. */
export class Taken<Body = unknown> extends Error {
  constructor(readonly body: Body) {
    super((body as { message?: string }).message ?? 'Changed from another window.')
  }
}

/** The server could not be asked, or did not know what was asked for. */
export class Unanswered extends Error {
  constructor(
    message: string,
    readonly status: number,
  ) {
    super(message)
  }
}

function csrfToken(): string {
  return /(?:^|; )csrftoken=([^;]*)/.exec(document.cookie)?.[1] ?? ''
}

const withToken: Middleware = {
  onRequest({ request }) {
    if (request.method !== 'GET') request.headers.set('X-CSRFToken', csrfToken())
    return request
  },
}

export const api = createClient<paths>({ baseUrl: '/' })
api.use(withToken, once)

type Answer<Data> = { data?: Data; error?: unknown; response: Response }

/** What the server said, or one of the errors above. */
export async function ask<Data>(answer: Promise<Answer<Data>>): Promise<Data> {
  let found: Answer<Data>
  try {
    found = await answer
  } catch {
    throw new Unanswered('The kitchen server does not answer. What you typed is kept.', 0)
  }
  const { data, error, response } = found
  if (response.ok) return data as Data
  const body = error as { problems?: Problem[]; nearest?: Sheet; message?: string } | undefined
  if (response.status === 422 && body?.problems) throw new Refused(body.problems, body.nearest ?? null)
  if (response.status === 409) throw new Taken(error)
  if (response.status === 401) throw new Unanswered('You are signed out. Sign in again.', 401)
  throw new Unanswered(body?.message ?? `The server answered ${response.status}.`, response.status)
}
