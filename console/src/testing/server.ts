import { createOpenApiHttp } from 'openapi-msw'
import { http as plain, HttpResponse } from 'msw'
import { setupServer } from 'msw/node'
import type { paths } from '@/api/schema'
import answers from './answers.json'

/** The API as its description has it: what a handler answers is held to the same types as the server's. */
export const api = createOpenApiHttp<paths>({ baseUrl: 'http://127.0.0.1:8400' })

/** What was sent, one line for each request that is not a read: the method, the address, and the body. */
export const sent: { method: string; path: string; body: unknown }[] = []

const recorded: Record<string, unknown> = answers
export function answer<T>(path: string): T {
  return structuredClone(recorded[path]) as T
}

/** What nothing is recorded for is refused: what no handler answers would be asked for again without end. */
function recordedOr404(asked: string) {
  return asked in recorded
    ? HttpResponse.json(recorded[asked] as object)
    : HttpResponse.json({ title: `nothing is recorded for ${asked}` }, { status: 404 })
}

/** Reads are answered as the demo business's server did; whatever else a test needs, it says itself. */
export const server = setupServer(
  plain.get('*/api/covered', () => HttpResponse.json({ share: 0.4 })),
  plain.get('*/api/*', ({ request }) => recordedOr404(new URL(request.url).pathname)),
  plain.post('*/api/*', ({ request }) => recordedOr404(`POST ${new URL(request.url).pathname}`)),
  plain.delete('*/api/follow-ups/:id/desk', () => new HttpResponse(null, { status: 204 })),
  plain.get('*/_allauth/*', () => HttpResponse.json({ status: 200, data: [] })),
)
server.events.on('request:start', ({ request }) => {
  if (request.method === 'GET') return
  const copy = request.clone()
  void copy.text().then((text) => {
    let body: unknown = text
    try {
      body = JSON.parse(text)
    } catch {
      // A file, or nothing.
    }
    sent.push({ method: request.method, path: new URL(request.url).pathname, body })
  })
})

/** How some requests are answered in this test. */
export function answering(...handlers: Parameters<typeof server.use>): void {
  server.use(...handlers)
}

/** What is refused, in words, with the fields named: the API's description says nothing of refusals. */
export function refused(status: number, title: string, fields: Record<string, string> = {}) {
  const errors = Object.entries(fields).map(([field, message]) => ({ field, message }))
  return HttpResponse.json({ title, status, errors }, { status }) as never
}
