import type { Drawing } from '@visitor/render'

/** The page behind, hinted at: the owner's own page is theirs to imagine. */
export const PAGE_CSS = `
body{margin:0;background:#fff;overflow:hidden}
main{padding:28px 6%}
section{min-height:1px;margin:0 0 14px}
i{display:block;height:14px;margin:0 0 14px;background:#e4e9e8;border-radius:3px}
i:nth-of-type(1){width:45%;height:26px}
i:nth-of-type(2){height:150px}
i:nth-of-type(5){width:70%}
i:nth-of-type(7){height:110px;width:48%}
i:nth-of-type(10){width:60%}`

export const STAGE_CSS = `
*{animation:none!important}
input,textarea,select,.cross,video,iframe,.face,summary{pointer-events:none}
.art[data-empty]{min-height:90px;background:repeating-linear-gradient(135deg,#c6d0cf 0 1.5px,transparent 1.5px 6px)}
[data-code][hidden]{display:block!important}
[data-code] output:empty::before{content:"no code is set";font-weight:400;opacity:.7}
[data-words]{cursor:text}
[data-words]:empty{min-width:1ch;min-height:1em}
[data-words]:empty::before{content:"…";opacity:.6}
[data-part]{border-radius:4px}
[data-part]:hover{outline:1px dashed #0e4f57;outline-offset:3px}
[data-part][data-selected]{outline:2px solid #0e4f57;outline-offset:3px}
[contenteditable]:focus{outline:0}
.reply{display:block!important}
.reply:empty::before{content:"Here they read when somebody answers."}`

interface Heard {
  edit(part: string, words: string, value: string): void
  select(part: string): void
  left(): void
}

/** Lets the words of a drawing be edited where they stand. */
export function makeEditable(drawing: Drawing, heard: Heard): void {
  for (const part of drawing.root.querySelectorAll<HTMLElement>('[data-part]')) {
    const id = part.dataset.part ?? ''
    part.addEventListener('click', (event) => {
      event.preventDefault()
      heard.select(id)
    })
    const own = part.dataset.words ? [part] : []
    for (const link of part.querySelectorAll('a,button'))
      link.addEventListener('click', (event) => event.preventDefault())
    for (const place of [...own, ...part.querySelectorAll<HTMLElement>('[data-words]')])
      editPlace(place, id, heard)
  }
  for (const control of drawing.root.querySelectorAll<HTMLElement>(
    'input,textarea,select,.cross,.face,video,summary',
  ))
    control.tabIndex = -1
}

function editPlace(place: HTMLElement, id: string, heard: Heard): void {
  const words = place.dataset.words
  if (!words) return
  const rich = words === 'html'
  const page = place.ownerDocument
  place.setAttribute('contenteditable', rich ? 'true' : 'plaintext-only')
  place.setAttribute('role', 'textbox')
  place.setAttribute('aria-label', `Words of ${id}`)
  place.tabIndex = 0
  place.addEventListener('focus', () => {
    if (rich) page.execCommand('defaultParagraphSeparator', false, 'p')
    heard.select(id)
  })
  place.addEventListener('blur', () => heard.left())
  place.addEventListener('keydown', (event) => {
    if (event.key === 'Enter' && !rich) {
      event.preventDefault()
      // A headline may have lines; everything else is one.
      if (place.tagName === 'H2') page.execCommand('insertText', false, '\n')
    }
    if (event.key === 'Escape') place.blur()
    // Inside a button the browser takes the space bar for a press.
    if (event.key === ' ' && place.closest('button')) {
      event.preventDefault()
      page.execCommand('insertText', false, ' ')
    }
    event.stopPropagation()
  })
  place.addEventListener('keyup', (event) => event.stopPropagation())
  place.addEventListener('input', () =>
    heard.edit(id, words, rich ? place.innerHTML : linesOf(place).replace(/\n$/, '')),
  )
}

/**
 * The words of a place with its lines: a browser may put a new one into an element of its own, or a break.
 */
function linesOf(place: Node): string {
  let said = ''
  let block = false
  for (const child of place.childNodes) {
    if ((block || child.nodeName === 'DIV') && said && !said.endsWith('\n')) said += '\n'
    block = child.nodeName === 'DIV'
    said += child.nodeName === 'BR' ? '\n' : block ? linesOf(child) : (child.textContent ?? '')
  }
  return said
}
