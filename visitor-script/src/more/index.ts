import type { More } from '../world'
import { comeAgain } from './again'
import { mend } from './mending'
import { offer } from './offer'
import { hostedPage, inPlace, tend } from './placing'
import { begin } from './rehearsal'
import { readPage } from './page'
import { solve } from './work'
import { unlearn } from './unlearning'
import { watchOne } from './watching'
import { question, score } from './asking'
import { MORE_CSS } from './css'
import { extras } from './extras'
import { freshFrom } from './fresh'
import { FEATURES } from './features'
import { code, picture } from './pictures'
import { buttonPart, channels } from './reaching'
import { el } from '../render/dom'
import { choice, several, slot } from './fields'
import { talk } from './talking'
import { countdown, hours, links, markup, price, questions, share, video } from './telling'

/** Every part that the loader does not carry itself. */
export const MORE: More = {
  features: FEATURES,
  watchOne,
  begin: (app) => {
    freshFrom(app)
    begin(app)
    comeAgain(app)
    hostedPage(app)
  },
  solve,
  tend,
  unlearn,
  extras,
  mend,
  inPlace,
  offer,
  readPage,
  makers: {
    picture,
    code,
    line: ({ page: doc }) => ({ element: el(doc, 'hr') }),
    space: ({ page: doc }, part) => {
      const element = el(doc, 'div')
      element.style.height = `${part.height}px`
      return { element }
    },
    question,
    score,
    price,
    countdown,
    links,
    share,
    hours,
    questions,
    video,
    markup,
    channels,
    talk,
    button: buttonPart,
  },
  more: { choice, several, slot },
  css: MORE_CSS,
}
