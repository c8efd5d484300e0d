import { describe, expect, it } from 'vitest'
import { open, screen, shows } from '@/testing/open'

describe('every place, for the demo business', () => {
  it.each([
    ['/follow-up', 'Rosalind Achterberg'],
    ['/follow-up/34', 'is the estuary safe at low tide'],
    ['/people', 'Rosalind Achterberg'],
    ['/people/34', 'Rosalind Achterberg'],
    ['/people/bring-in', 'Bring people in'],
    ['/touchpoints', 'Tide table'],
    ['/touchpoints/2', 'Content'],
    ['/touchpoints/2/answers', 'Tide table'],
    ['/touchpoints/rehearse', 'Rehearse a visit'],
    ['/hours', 'The week'],
    ['/hours/told', 'After hours'],
    ['/hours/channels', 'Call us'],
    ['/business', 'A copy of everything'],
    ['/you', 'Where you are signed in'],
    ['/quarantine', 'Set aside'],
    ['/not-on-the-list', 'Not on the list'],
    ['/script', 'The script on your site'],
    ['/nowhere', 'There is nothing at this address'],
  ])('%s shows what it is for', async (path, words) => {
    await open(path)
    await shows(new RegExp(words))
    expect(screen.getAllByRole('heading', { level: 1 })).not.toHaveLength(0)
    expect(document.title).toMatch(/ · Intavo$/)
  })
})
