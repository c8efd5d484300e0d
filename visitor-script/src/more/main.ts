import { MORE } from './index'
import { tellStyle } from './style'

interface Waiting {
  $more?: (more: typeof MORE) => void
}

const waiting = (window as { intavo?: Waiting }).intavo
waiting?.$more?.(MORE)
tellStyle()
