// Who is signed in, the company's money, zone and clock.
import { defineStore } from 'pinia'
import type { Answer } from '~~/shared/api'
import type { Money } from '~~/core/money/formatMinor'
import { call } from '~/lib/api'
import { forgetBook } from '~/lib/book'
import { closeLive } from '~/lib/live'

type Session = Answer<'session'>
export const useSession = defineStore('session', {
  state: () => ({ me: null as Session | null, asked: false, readAt: 0 }),
  getters: {
    role: (state) => state.me?.person.role ?? 'technician',
    zone: (state) => state.me?.company.timeZone ?? 'UTC',
    today: (state) => state.me?.today ?? '',
  },
  actions: {
    keep(me: Session) {
      this.me = me
      this.readAt = Date.now()
      localStorage.setItem('signed-in', '1')
    },
    async load() {
      if (!this.asked && localStorage.getItem('signed-in')) {
        this.asked = true
        try {
          this.keep(await call('session'))
        } catch {
          this.me = null
          localStorage.removeItem('signed-in')
        }
      }
      return this.me
    },
    async signOut() {
      await call('signOut')
      closeLive()
      await forgetBook()
      localStorage.removeItem('signed-in')
      this.$reset()
    },
    /** The server's now, running on unless it is pinned. */
    now(): number {
      if (!this.me) return Date.now()
      return Date.parse(this.me.now) + (this.me.clockFixed ? 0 : Date.now() - this.readAt)
    },
    money(m: Money, symbol = true): string {
      const { locale } = this.me?.company ?? { locale: 'en-US' }
      return new Intl.NumberFormat(
        locale,
        symbol
          ? { style: 'currency', currency: m.currency }
          : { minimumFractionDigits: 2, maximumFractionDigits: 2 },
      ).format(m.amount as unknown as number)
    },
    /** A state of work in the firm's own words. */
    state(state: string): string {
      return (
        (this.me?.company.stateLabels as Record<string, string> | undefined)?.[state] ||
        (state === 'needs_slot' ? 'needs a slot' : state.replaceAll('_', ' '))
      )
    },
    time(iso: string | null): string {
      return iso
        ? new Intl.DateTimeFormat('en-GB', {
            hour: '2-digit',
            minute: '2-digit',
            timeZone: this.zone,
          }).format(new Date(iso))
        : ''
    },
    day(date: string, long = false): string {
      return new Intl.DateTimeFormat('en-GB', {
        weekday: long ? 'long' : 'short',
        day: 'numeric',
        month: long ? 'long' : 'short',
        timeZone: 'UTC',
      })
        .format(new Date(`${date}T00:00Z`))
        .replace(',', '')
    },
    dayTime(iso: string): string {
      return new Intl.DateTimeFormat('en-GB', {
        weekday: 'short',
        day: 'numeric',
        month: 'short',
        hour: '2-digit',
        minute: '2-digit',
        timeZone: this.zone,
      })
        .format(new Date(iso))
        .replaceAll(',', '')
    },
  },
})
