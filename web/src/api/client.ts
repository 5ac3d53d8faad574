import createClient, { type Middleware } from 'openapi-fetch'
import type { components, paths } from './schema'

export type Schemas = components['schemas']

/** RFC 9457 problem details, as every refusal comes. */
interface Problem {
  title?: string
  code?: string
  details?: string[]
  fields?: Record<string, string>
}

/** What the server (or the missing line to it) said no with. `status` 0: the server was not reached. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly details: string[] = [],
    /** What is wrong with which field of what was sent, to be shown there. */
    readonly fields: Record<string, string> = {},
  ) {
    super(message)
  }
  get unreachable(): boolean {
    return this.status === 0 || this.status === 502 || this.status === 503 || this.status === 504
  }
}

export function csrfToken(): string {
  return /(?:^|; )(?:__Host-)?csrftoken=([^;]+)/.exec(document.cookie)?.[1] ?? ''
}

const withCsrf: Middleware = {
  onRequest({ request }) {
    if (request.method !== 'GET') request.headers.set('X-CSRFToken', csrfToken())
    return request
  },
}

/** What takes the server longer than a look at a page: closing, logs, dry runs, papers, traces. */
const LONG_WORK = /\/(close|logs|house-rules|preview|captures|amendments|shop|units)(\/|$)/
const READ_MS = 8000
const WRITE_MS = 20_000 // what is entered on a visit does not wait for it: that goes by the outbox
const LONG_MS = 60_000

function usualPatience(request: Request): number {
  if (LONG_WORK.test(new URL(request.url).pathname)) return LONG_MS
  return request.method === 'GET' ? READ_MS : WRITE_MS
}

/** Fetches, and gives up after `ms`: on a wire that died without a word nothing else ever would. */
export const within = (ms: number) => (request: Request) =>
  fetch(request, { signal: AbortSignal.any([request.signal, AbortSignal.timeout(ms)]) })

export const http = createClient<paths>({
  baseUrl: '/',
  credentials: 'same-origin',
  fetch: (request) => within(usualPatience(request))(request),
})
http.use(withCsrf)

interface Answer<T> {
  data?: T
  error?: unknown
  response: Response
}

/** Await a call; return its data or throw ApiError. */
export async function call<T>(answer: Promise<Answer<T>>): Promise<T> {
  let got: Answer<T>
  try {
    got = await answer
  } catch {
    throw new ApiError(0, 'unreachable', 'The server cannot be reached.')
  }
  if (!got.response.ok) throw asError(got.response.status, got.error)
  return got.data as T
}

export function asError(status: number, body: unknown): ApiError {
  const problem = (typeof body === 'object' && body !== null ? body : {}) as Problem
  const code = problem.code ?? (status === 403 ? 'forbidden' : 'server_error')
  return new ApiError(
    status,
    code,
    problem.title ?? `The server answered ${status}.`,
    problem.details ?? [],
    problem.fields ?? {},
  )
}

const STALLED_MS = 30_000
/** A file is read before it is answered: a busy machine takes seconds for a megabyte. */
const READING_MS_PER_BYTE = 5 / 1000
const NOT_TAKEN = 'The server cannot be reached: the file was not taken. Send it again.'

/** Send a file with progress 0..1; resolve with the parsed answer or throw ApiError. Given up when nothing moves any more. */
export function upload<T>(
  url: string,
  file: File,
  fields: Record<string, string>,
  onProgress: (share: number) => void,
  answerWithin = LONG_MS + READING_MS_PER_BYTE * file.size,
): Promise<T> {
  return new Promise((resolve, reject) => {
    const form = new FormData()
    for (const [name, value] of Object.entries(fields)) form.append(name, value)
    form.append('file', file)
    const request = new XMLHttpRequest()
    let timer = 0
    const giveUpAfter = (ms: number) => {
      window.clearTimeout(timer)
      timer = window.setTimeout(() => request.abort(), ms)
    }
    request.open('POST', url)
    request.setRequestHeader('X-CSRFToken', csrfToken())
    request.responseType = 'json'
    request.upload.onprogress = (event) => {
      giveUpAfter(STALLED_MS)
      onProgress(event.lengthComputable ? event.loaded / event.total : 0)
    }
    request.upload.onload = () => giveUpAfter(answerWithin)
    request.onloadend = () => window.clearTimeout(timer)
    request.onerror = request.onabort = () => reject(new ApiError(0, 'unreachable', NOT_TAKEN))
    request.onload = () =>
      request.status < 300
        ? resolve(request.response as T)
        : reject(asError(request.status, request.response))
    giveUpAfter(STALLED_MS)
    request.send(form)
  })
}
