import { QueryClient } from '@tanstack/vue-query'

/**
 * What is read from the server, with one difference to the package's own: whoever says that something has changed
 * gets an answer that was asked for after that, also where the first answer of all is still on its way. The package
 * would wait for that one, which may have been written down before the change: the page then never heard of it.
 */
export class Queries extends QueryClient {
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
