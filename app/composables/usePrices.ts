import { createSharedComposable } from '@vueuse/core'
import { NO_PRICES } from '#core/card'
import type { Money, Price, PriceBook } from '#core/card'

/** The crew's price book: kept on this device, entered without a connection too, sent when there is one. */
export const usePrices = createSharedComposable(() => {
  const session = useSession()
  const book = shallowRef<PriceBook>(NO_PRICES)
  const error = ref('')
  let unsent: Price[] = []
  ofMember(() => {
    book.value = NO_PRICES
    unsent = []
    error.value = ''
  })

  const byKey = computed(() => new Map(book.value.prices.map(p => [p.key, p])))
  const laid = (over: readonly Price[], under: readonly Price[]): Price[] => [
    ...new Map([...under, ...over].map(p => [p.key, p])).values(),
  ]

  async function load(): Promise<void> {
    const { own } = session
    if (!own) return
    const [held, waiting] = await Promise.all([own.store.kept<PriceBook>('prices'), own.store.kept<Price[]>('prices-unsent')])
    if (session.own !== own) return
    book.value = held ?? NO_PRICES
    unsent = waiting ?? []
    await send()
  }

  /** One sending at a time: what is entered meanwhile goes with the next, and is never overwritten by an older answer. */
  const send = inTurn(async () => {
    const { own } = session
    if (!own) return
    error.value = ''
    try {
      const going = unsent
      if (going.length) await api('/api/crew/prices', { method: 'PUT', body: { prices: going } })
      if (session.own !== own) return
      unsent = unsent.filter(p => !going.includes(p))
      await own.store.keep('prices-unsent', unsent)
      const told = await api<PriceBook>('/api/crew/prices')
      if (session.own !== own) return
      book.value = { ...told, prices: laid(unsent, told.prices) }
      await own.store.keep('prices', book.value)
    } catch (e) {
      if (session.own === own && !(e instanceof Unreachable)) error.value = messageOf(e)
    }
  })

  async function save(price: Price): Promise<void> {
    book.value = { ...book.value, prices: laid([price], book.value.prices) }
    unsent = [...unsent.filter(p => p.key !== price.key), price]
    await Promise.all([keep('prices', book.value), keep('prices-unsent', unsent)])
    await send()
  }

  async function saveMoney(money: Money): Promise<{ field: string; message: string }[]> {
    try {
      await api('/api/crew/money', { method: 'PUT', body: money })
      book.value = { ...book.value, money }
      await keep('prices', book.value)
      return []
    } catch (e) {
      return e instanceof ApiError && e.errors?.length ? e.errors : [{ field: '', message: messageOf(e) }]
    }
  }

  watch(() => session.own, load, { immediate: true })
  useEventListener(window, 'online', () => void send())
  return { book, byKey, error, save, saveMoney }
})
