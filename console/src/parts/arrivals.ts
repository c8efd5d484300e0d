import { useDocumentVisibility } from '@vueuse/core'
import { watch } from 'vue'
import { useRouter } from 'vue-router'
import { readArrivals, useLive, useTold } from '@/api/follow-ups'

/** Two short tones, made here: nothing is loaded for them. */
export function chime() {
  const context = new AudioContext()
  ;[0, 0.16].forEach((after, at) => {
    const tone = context.createOscillator()
    const loud = context.createGain()
    tone.frequency.value = at ? 880 : 660
    loud.gain.setValueAtTime(0.12, context.currentTime + after)
    loud.gain.exponentialRampToValueAtTime(0.0001, context.currentTime + after + 0.3)
    tone.connect(loud).connect(context.destination)
    tone.start(context.currentTime + after)
    tone.stop(context.currentTime + after + 0.32)
  })
  window.setTimeout(() => void context.close(), 1000)
}

/**
 * What comes in while one works elsewhere: counted in the tab's title until it is looked at, told by the
 * browser and heard where the member wants that, in open hours only.
 */
export function useArrivals() {
  const { told } = useTold()
  const router = useRouter()
  const seen = useDocumentVisibility()
  let last: number | undefined
  let unseen = 0
  let asking = Promise.resolve()

  async function look() {
    const found = await readArrivals(last).catch(() => null)
    if (!found) return
    const known = last
    last = found.last
    if (known === undefined || !found.came.length) return
    if (seen.value === 'hidden') {
      unseen += found.came.length
      document.title = `(${unseen}) ${document.title.replace(/^\(\d+\) /, '')}`
    }
    if (!found.open_now) return
    if (told.value?.sound) chime()
    if (told.value?.notify && 'Notification' in window && Notification.permission === 'granted') {
      for (const one of found.came.slice(-3)) {
        const note = new Notification(one.called, { body: one.text, tag: `intavo-${one.id}` })
        note.onclick = () => {
          window.focus()
          if (one.followup_id) void router.push(`/follow-up/${one.followup_id}`)
        }
      }
    }
  }
  // One at a time, so that nothing is told twice.
  const next = () => (asking = asking.then(look))
  useLive(() => void next())
  void next()
  watch(seen, (now) => {
    if (now === 'hidden') return
    unseen = 0
    document.title = document.title.replace(/^\(\d+\) /, '')
  })
}
