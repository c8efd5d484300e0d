import { ref } from 'vue'
import { PasswordNeeded, sayPassword } from '@/api/account'
import { useForm } from '@/parts/form'

/** What may need the password once more: it is asked for, and then the same is done again. */
export function useGuarded() {
  const form = useForm()
  const waiting = ref<(() => Promise<unknown>) | null>(null)
  const guarded = (work: () => Promise<unknown>) =>
    form.run(async () => {
      try {
        await work()
      } catch (problem) {
        if (!(problem instanceof PasswordNeeded)) throw problem
        waiting.value = work
      }
    })
  const again = (password: string) =>
    form.run(async () => {
      await sayPassword(password)
      const work = waiting.value
      waiting.value = null
      await work?.()
    })
  const never = () => (waiting.value = null)
  return { ...form, waiting, guarded, again, never }
}
