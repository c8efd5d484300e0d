import type { App } from '../world'
import { fresh } from '../memory'

/** What the server can not take of what is remembered, or of the page, is left out from now on. */
export function unlearn({ store, visit }: App, errors: { field: string }[]): void {
  store.change((memory) => {
    for (const { field } of errors) {
      const [of, name = ''] = field.split('.')
      if (of === 'memory') Reflect.deleteProperty(memory.touchpoints, name)
      else if (of === 'page') visit.refused.push(name)
      else if (name in memory) Object.assign(memory, { [name]: fresh()[name as 'id'] })
    }
  })
}
