import { expect, it } from 'vitest'
import { axis, readTime, sayTime } from './deeds'

it.each([
  [14, '0:14'],
  [130, '2:10'],
  [3730, '1:02:10'],
  [183600, '2 d 3:00:00'],
])('says %d s as %s, and reads it again', (seconds, said) => {
  expect(sayTime(seconds)).toBe(said)
  expect(readTime(said)).toBe(seconds)
})

it('reads plain seconds and refuses nonsense', () => {
  expect([readTime('14'), readTime('2.5'), readTime('soon'), readTime('')]).toEqual([14, 2.5, null, null])
})

it('gives every stretch room, and a night no more than its share', () => {
  const { place, time } = axis([10, 11, 86400], 86420)
  expect([place(0), place(86420)]).toEqual([0, 1])
  expect(place(11) - place(10)).toBeGreaterThan(0.04)
  expect(place(86400) - place(11)).toBeLessThan(0.6)
  for (const at of [0, 5, 10, 10.5, 40000, 86410]) expect(time(place(at))).toBeCloseTo(at, 3)
})

it('has a place for everything even where nothing lasts', () => expect(axis([], 0).place(0)).toBe(0))
