import Sortable from 'sortablejs'

/** A list with one of its things moved to another place. */
export function moved<T>(list: readonly T[], from: number, to: number): T[] {
  const kept = list.filter((_, at) => at !== from)
  return [...kept.slice(0, to), ...list.slice(from, from + 1), ...kept.slice(to)]
}

/**
 * Lets the rows of a list be dragged by their grips; `move` is told from where to where. Gives back how to
 * end it.
 */
export function dragRows(list: HTMLElement, move: (from: number, to: number) => void): () => void {
  const sortable = Sortable.create(list, {
    handle: '[data-grip]',
    animation: 120,
    onEnd: ({ oldIndex = 0, newIndex = 0, item, from }) => {
      // The list is drawn from data; the element goes back, and the data moves it.
      from.insertBefore(item, from.children[oldIndex + (newIndex < oldIndex ? 1 : 0)] ?? null)
      move(oldIndex, newIndex)
    },
  })
  return () => sortable.destroy()
}
