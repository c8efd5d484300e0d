import { expect, it } from 'vitest'
import vectors from '../../../tests/core/typed_times.json'
import { readClock } from './clocktime'

it.each(vectors.read)('reads %s', (text, clock) => expect(readClock(text ?? '')).toBe(clock))

it.each(vectors.refused)('does not guess at “%s”', (text) => expect(readClock(text)).toBeNull())
