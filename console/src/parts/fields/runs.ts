/** Words with slots, as the editor holds them and as the document keeps them. */
export type Run<S extends string = string> = string | { slot: S }

interface Node {
  type: string
  text?: string
  attrs?: { slot?: string }
  content?: Node[]
}

const escape = (text: string): string => text.replace(/&/g, '&amp;').replace(/</g, '&lt;')

export function runsToHtml(runs: readonly Run[]): string {
  const inner = runs.map((run) =>
    typeof run === 'string'
      ? escape(run).replace(/\n\n?/g, '</p><p>')
      : `<span data-slot="${run.slot}"></span>`,
  )
  return `<p>${inner.join('')}</p>`
}

/** The words of an editor's content; paragraphs are parted by an empty line. */
export function runsOf(content: Node): Run[] {
  const runs: Run[] = []
  const add = (text: string): void => {
    const last = runs[runs.length - 1]
    if (typeof last === 'string') runs[runs.length - 1] = last + text
    else if (text) runs.push(text)
  }
  content.content?.forEach((paragraph, at) => {
    if (at) add('\n\n')
    for (const node of paragraph.content ?? []) {
      if (node.type === 'slot' && node.attrs?.slot) runs.push({ slot: node.attrs.slot })
      else add(node.type === 'hardBreak' ? '\n' : (node.text ?? ''))
    }
  })
  return runs.filter((run) => run !== '')
}
