import { solveChallenge } from 'altcha-lib/v1'
import { written } from '../clean'
import type { Entry } from '../plan'
import type { World } from '../world'
import { extras } from './extras'

interface Work {
  algorithm: string
  challenge: string
  salt: string
  signature: string
  max: number
}

/**
 * The answer to a piece of work, as the server takes it. Needs a secure context, as the browser's own hash
 * does.
 */
export async function solve(world: World, entry: Entry): Promise<string> {
  try {
    const { work } = (await extras(world, entry, false)) as { work?: Work }
    if (!work) return ''
    const { algorithm, challenge, salt, signature } = work
    const found = await solveChallenge(challenge, salt, algorithm, work.max).promise
    return found
      ? btoa(written({ algorithm, challenge, salt, signature, number: found.number, took: found.took }))
      : ''
  } catch {
    return ''
  }
}
