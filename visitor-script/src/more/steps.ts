import { written } from '../clean'
import { el } from '../render/dom'
import { sends } from '../render/draw'
import type { Drawing } from '../render/drawing'
import type { Feature } from '../render/feature'
import type { Step } from '../render/types'
import { nextStep, takesNameless } from './flow'
import { inUse } from './in-use'
import { say } from './words'

/** The steps that can be come to from the first; what stands behind a mail's link is none of them. */
function onTheWay(steps: Step[]): Step[] {
  const found = steps.slice(0, 1)
  for (const one of found) {
    const said = written(one)
    found.push(...steps.filter((other) => !found.includes(other) && said.includes(`"next":"${other.id}"`)))
  }
  return steps.filter((one) => found.includes(one))
}

/** Goes from step to step, on and back. */
export const steps = (drawing: Drawing): Feature => {
  const { document, mode, page } = drawing
  let way: string[] = []

  const go = (step: string): void => {
    drawing.draw(step)
    drawing.heading()?.focus()
    if (drawing.began) drawing.around.keep({ step, ...drawing.typed })
  }

  const back = (): void => {
    const before = way.pop() ?? document.steps[0]?.id
    if (before) go(before)
  }

  /** On to the next step, if nothing is missing on this one. */
  const forward = (to: string | null = null): void => {
    drawing.keepTyped()
    const missing = drawing.made
      .filter(({ control }) => control?.focus.getAttribute('aria-required') === 'true' && !control.read())
      .map(({ control }) => ({ field: `.${control?.name}`, message: say(drawing, 'fill') }))
    if (missing.length) return drawing.mend(missing)
    const next = nextStep(drawing.step, drawing.typed.answers) ?? to
    if (!next) return
    way.push(drawing.step.id)
    go(next)
  }

  const progress = (): HTMLElement[] => {
    const all = onTheWay(document.steps)
    const at = all.indexOf(drawing.step)
    if (all.length < 3 || at < 0) return []
    const bars = all.map((_, index) => el(page, 'i', index <= at ? { class: 'done' } : {}))
    const label = say(drawing, 'step', { at: at + 1, all: all.length })
    return [el(page, 'div', { class: 'progress', role: 'img', 'aria-label': label }, ...bars)]
  }

  return {
    begin: () => {
      const [first] = document.steps
      const kept = document.steps.find((step) => step.id === drawing.around.typed?.step)
      if (kept && first && kept !== first) way.push(first.id)
      drawing.draw((kept ?? first)?.id ?? '')
      return true
    },
    drawn: () => drawing.card.querySelector('.body')?.prepend(...progress()),
    started: () => inUse(drawing.host),
    chosen: () => {
      drawing.start()
      if (mode === 'stage' || sends(drawing.step)) return
      const here = drawing.step.id
      const next = nextStep(drawing.step, drawing.typed.answers)
      const following = document.steps.find((step) => step.id === next)
      // Where no later step sends it, the choice itself is the answer.
      if (takesNameless(document) && !sends(following)) void drawing.actions.send(here, drawing.typed, '')
      if (!next) return
      way.push(here)
      go(next)
    },
    clicked: (does) => {
      if (does.action === 'back') back()
      else if (does.action === 'step') forward(does.next)
    },
    forward,
    settled: ({ next }) => {
      inUse(drawing.host, false)
      if (next) way = []
    },
  }
}
