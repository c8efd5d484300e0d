import { solveChallenge } from 'altcha-lib/v1'
import { MORE } from './index'
import { tellStyle } from './style'

interface Waiting {
  $more?: (more: typeof MORE, solve: (work: Work) => Promise<string>) => void
}

export interface Work {
  algorithm: string
  challenge: string
  salt: string
  signature: string
  max: number
}

/** The answer to a piece of work, as the server takes it. Needs a secure context, as the browser's own hash does. */
async function solve(work: Work): Promise<string> {
  const { algorithm, challenge, salt, signature } = work
  const found = await solveChallenge(challenge, salt, algorithm, work.max).promise
  return found ? btoa(JSON.stringify({ algorithm, challenge, salt, signature, number: found.number, took: found.took })) : ''
}

const waiting = (window as { intavo?: Waiting }).intavo
waiting?.$more?.(MORE, solve)
tellStyle()
