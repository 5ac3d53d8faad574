import createClient, { type Middleware } from 'openapi-fetch'
import type { components, paths } from './schema'

export type Schemas = components['schemas']

/** RFC 9457 problem details, as every refusal comes. */
interface Problem {
  title?: string
  code?: string
  details?: string[]
}

/** What the server (or the missing line to it) said no with. `status` 0: the server was not reached. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly details: string[] = [],
  ) {
    super(message)
  }
  get unreachable(): boolean {
    return this.status === 0 || this.status === 502 || this.status === 503 || this.status === 504
  }
}

export function csrfToken(): string {
  return /(?:^|; )csrftoken=([^;]+)/.exec(document.cookie)?.[1] ?? ''
}

const withCsrf: Middleware = {
  onRequest({ request }) {
    if (request.method !== 'GET') request.headers.set('X-CSRFToken', csrfToken())
    return request
  },
}

export const http = createClient<paths>({ baseUrl: '/', credentials: 'same-origin' })
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
    throw new ApiError(0, 'unreachable', 'The server is not reached.')
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
  )
}

/** Send a file with progress 0..1; resolve with the parsed answer or throw ApiError. */
export function upload<T>(
  url: string,
  file: File,
  fields: Record<string, string>,
  onProgress: (share: number) => void,
): Promise<T> {
  return new Promise((resolve, reject) => {
    const form = new FormData()
    for (const [name, value] of Object.entries(fields)) form.append(name, value)
    form.append('file', file)
    const request = new XMLHttpRequest()
    request.open('POST', url)
    request.setRequestHeader('X-CSRFToken', csrfToken())
    request.responseType = 'json'
    request.upload.onprogress = (event) =>
      onProgress(event.lengthComputable ? event.loaded / event.total : 0)
    request.onerror = () =>
      reject(
        new ApiError(
          0,
          'unreachable',
          'The server is not reached: the file was not taken. Send it again.',
        ),
      )
    request.onload = () =>
      request.status < 300
        ? resolve(request.response as T)
        : reject(asError(request.status, request.response))
    request.send(form)
  })
}
