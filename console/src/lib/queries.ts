import { QueryClient } from '@tanstack/vue-query'
import { Failure } from '@/api/client'

/**
 * What is read from the server, with one difference to the package's own: whoever says that something has changed
 * gets an answer that was asked for after that, also where the first answer of all is still on its way. The package
 * would wait for that one, which may have been written down before the change: the page then never heard of it.
 */
export class Queries extends QueryClient {
  constructor() {
    super({
      defaultOptions: {
        queries: {
          staleTime: 10_000,
          // A refusal will be refused again; only a broken connection is worth another try.
          retry: (count, error) => count < 2 && error instanceof Failure && error.status === 0,
        },
      },
    })
  }

  override async invalidateQueries(
    ...[filters, options]: Parameters<QueryClient['invalidateQueries']>
  ): Promise<void> {
    const which = typeof filters === 'function' ? filters() : (filters ?? {})
    await this.cancelQueries({
      ...which,
      fetchStatus: 'fetching',
      predicate: (query) => query.state.data === undefined && (which.predicate?.(query) ?? true),
    })
    return super.invalidateQueries(which, options)
  }
}
