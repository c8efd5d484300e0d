import { expect, it } from 'vitest'
import { ref } from 'vue'
import type { FullLook } from '@/api/document'
import WORDS from '@visitor/generated/words.json'
import { useLook, type Screen } from './look'
import { seenOf } from './seen'
import type { TouchpointDocument } from '@/api/document'
import { glimpse, nameOf } from './words'

const VALUES = {
  place: 'middle',
  width: 480,
  corners: 4,
  colours: { card: '#ffffff', text: '#111111', button: '#222222' },
}
const WORKED = { ...VALUES, phone: { ...VALUES, place: 'bottom' }, css: '' } as unknown as FullLook
const SPEECH = { lang: 'en', locale: 'en-GB', dir: 'ltr' as const, words: WORDS }
const OPEN = { place: null, width: null, corners: null, colours: { card: null, text: null, button: null } }

function document(look: object = {}, phone: object = {}): TouchpointDocument {
  return {
    steps: [{ id: 'ask', name: '', parts: [] }],
    look: { ...OPEN, house: true, css: '', ...look, phone: { ...OPEN, ...phone } },
  } as unknown as TouchpointDocument
}

it('lays what was just changed over what the server worked out', () => {
  const seen = seenOf(document({ width: 600, colours: { ...OPEN.colours, card: '#abcdef' } }), WORKED, SPEECH)
  expect([seen.look.width, seen.look.phone.width, seen.look.corners]).toEqual([600, 600, 4])
  expect([seen.look.colours.card, seen.look.phone.colours.card, seen.look.colours.text]).toEqual([
    '#abcdef',
    '#abcdef',
    '#111111',
  ])
  expect(seen.look.phone.place).toBe('bottom')
})

it('lets the phone differ', () => {
  const seen = seenOf(
    document({ width: 600 }, { width: 300, colours: { ...OPEN.colours, button: '#000000' } }),
    WORKED,
    SPEECH,
  )
  expect([seen.look.width, seen.look.phone.width]).toEqual([600, 300])
  expect([seen.look.colours.button, seen.look.phone.colours.button]).toEqual(['#222222', '#000000'])
})

it('puts the logo of the house style where it is asked for', () => {
  const edited = document()
  edited.steps[0]?.parts.push({ id: 'p1', kind: 'picture', asset: 'house-logo' } as never)
  expect(seenOf(edited, WORKED, SPEECH, 'as_1234').steps[0]?.parts).toMatchObject([{ asset: 'as_1234' }])
  expect(seenOf(edited, WORKED, SPEECH).steps[0]?.parts).toMatchObject([{ asset: null }])
  expect(edited.steps[0]?.parts).toMatchObject([{ asset: 'house-logo' }])
})

it('shares nothing with the document that is being edited', () => {
  const edited = document()
  seenOf(edited, WORKED, SPEECH).steps[0]?.parts.push({} as never)
  expect(edited.steps[0]?.parts).toEqual([])
})

it('says where a value departs and takes it back', () => {
  const edited = ref(document({ corners: 9 }))
  const screen = ref<Screen>('all')
  const look = useLook(edited, ref(WORKED), screen, (_, change) => change(edited.value))
  expect([look.value('corners'), look.departs('corners'), look.departs('width')]).toEqual([9, true, false])
  look.back('corners')
  expect([look.value('corners'), look.departs('corners')]).toEqual([4, false])
  screen.value = 'phone'
  look.set('width', 300)
  look.setColour('card', '#010203')
  expect(edited.value.look.phone).toMatchObject({ width: 300, colours: { card: '#010203' } })
  expect([look.colour('card'), look.colourDeparts('card'), look.colour('text')]).toEqual([
    '#010203',
    true,
    '#111111',
  ])
  expect(look.from.value).toBe('what the desktop has')
})

const base = { id: 'p', on: [], hidden: false, row: null, share: 100 }
it.each([
  [{ kind: 'field', input: 'email', name: 'email', label: 'Your email' }, 'Email field', 'Your email'],
  [{ kind: 'field', input: 'text', name: 'name', label: 'First name' }, 'Name field', 'First name'],
  [{ kind: 'button', label: 'Go', does: { action: 'phone' } }, 'Button to a call', 'Go'],
  [{ kind: 'text', html: '<p>Hi <b>you</b></p>' }, 'Text', ' Hi  you  '],
  [{ kind: 'price', now: '3', old: '4' }, 'Price', '3, before 4'],
  [{ kind: 'picture', description: 'A boat' }, 'Picture', 'A boat'],
  [{ kind: 'line' }, 'Line', ''],
])('calls %j by its name', (part, name, words) => {
  expect([nameOf({ ...base, ...part } as never), glimpse({ ...base, ...part } as never)]).toEqual([
    name,
    words,
  ])
})
