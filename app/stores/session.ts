// Who is signed in, the company's money, zone and clock.
import { defineStore } from 'pinia'
import type { Permission } from '~~/core/access/permissions'
import type { Answer } from '~~/shared/api'
import type { Money } from '~~/core/money/formatMinor'
import { takeAhead } from '~/lib/ahead'
import { call, catalogueOfRoutes, type Problem } from '~/lib/api'
import { forgetBook } from '~/lib/book'
import { forgetLostWrites } from '~/lib/lostWrites'
import { askAllAnew, closeLive } from '~/lib/live'
import { draftsOf, dropDrafts } from '~/base/drafts'
import { sayMoney } from '~~/core/money/sayMoney'
import { sayDay, type DayStyle } from '~~/core/time/sayDay'
import type { PhraseListName } from '~~/core/settings/phrases'
import { sayWorkKind } from '~~/core/visits/workKinds'
import { localDate, localTime } from '~~/core/time/zone'

type Session = Answer<'session'>
/** What forms are checked by lets the first screen go first. */
const FIRST_SCREEN_MS = 2000
/** Whether somebody signed in here who may still be. */
export const isKnownHere = () => localStorage.getItem('signed-in') !== null
export const useSession = defineStore('session', {
  state: () => ({
    me: null as Session | null,
    asked: false,
    readAt: 0,
    /** the session ended by itself while this window was open */
    ended: false,
    /** why nobody could be asked who is signed in */
    away: '',
  }),
  getters: {
    role: (state) => state.me?.person.role ?? 'technician',
    locale: (state) => state.me?.company.locale ?? 'en-US',
    zone: (state) => state.me?.company.timeZone ?? 'UTC',
    today: (state) => state.me?.today ?? '',
    ownRoles: (state) => state.me?.company.ownRoles ?? [],
    workKinds: (state) => state.me?.company.workKinds ?? [],
  },
  actions: {
    /** Whether who is signed in may do it, as the server says. */
    may(permission: Permission): boolean {
      return this.me?.person.may.includes(permission) ?? false
    },
    keep(me: Session) {
      this.me = me
      this.readAt = Date.now()
      this.ended = false
      this.away = ''
      draftsOf(me.person.id)
      setTimeout(() => void catalogueOfRoutes(), FIRST_SCREEN_MS)
      localStorage.setItem('signed-in', '1')
    },
    /** The server drew the first screen for whoever this is, and keeps nothing itself; its clock has run on since that arrived. */
    begin(me: Session, arrivedAt: number) {
      this.asked = true
      if (import.meta.server) return void (this.me = me)
      this.keep(me)
      // Browsers measure in parts of a millisecond, instants have none.
      this.readAt = Math.round(arrivedAt)
    },
    async load() {
      if (!this.asked && isKnownHere()) {
        this.asked = true
        try {
          this.keep(await (takeAhead('session') ?? call('session')))
        } catch (error) {
          this.me = null
          // A page that was left, or a line that dropped, has signed nobody out: the next page asks again.
          if ((error as Problem).status === 401) localStorage.removeItem('signed-in')
          else {
            this.asked = false
            this.away = (error as Problem).message
          }
        }
      }
      return this.me
    },
    /** What the firm allows may change while a window is open; where it cannot be asked, the server says so at the act. */
    async again() {
      const me = await call('session').catch(() => null)
      if (me && this.me) this.keep(me)
    },
    /** Nothing of whoever was signed in is left to the next person; whoever calls it opens the window anew. */
    async signOut() {
      await call('signOut')
      closeLive()
      dropDrafts()
      forgetLostWrites()
      await forgetBook()
      localStorage.removeItem('signed-in')
      this.$reset()
    },
    /** The day turns while a window stays open: what it shows of today is asked anew. */
    turnDay() {
      const today = this.me && localDate(this.now(), this.zone)
      if (!today || today <= this.me!.today) return
      this.me!.today = today
      askAllAnew()
    },
    /** The server's now, running on unless it is pinned. */
    now(): number {
      if (!this.me) return Date.now()
      return Date.parse(this.me.now) + (this.me.clockFixed ? 0 : Date.now() - this.readAt)
    },
    /** A sum of the firm's own currency in figures alone, as columns show it. */
    figure(amount: string): string {
      return this.money({ amount, currency: this.me!.company.currency }, false)
    },
    money(m: Money, symbol = true): string {
      return sayMoney(m, this.locale, symbol)
    },
    /** What is often written in one place. */
    phrases(of: PhraseListName): readonly string[] {
      const all = this.me?.company.phrases ?? []
      return all.find(({ name }) => name === of)?.phrases ?? []
    },
    kindOf(kind: string) {
      return this.workKinds.find(({ code }) => code === kind)
    },
    /** How long a visit of a kind usually takes. */
    secondsOf(kind: string): number {
      return (this.kindOf(kind)?.minutes ?? 60) * 60
    },
    /** Kinds to choose from: those that are offered, and the one that it is now. */
    kindOptions(now: string) {
      return this.workKinds
        .filter(({ code, retired }) => !retired || code === now)
        .map(({ code, name }) => ({ value: code, label: name }))
    },
    /** A kind of work in the firm's own words. */
    workKind(kind: string): string {
      return sayWorkKind(kind, this.workKinds)
    },
    /** A state of work in the firm's own words. */
    state(state: string): string {
      return (
        (this.me?.company.stateLabels as Record<string, string> | undefined)?.[state] ||
        (state === 'needs_slot' ? 'needs a slot' : state.replaceAll('_', ' '))
      )
    },
    time(iso: string | null): string {
      return iso ? localTime(Date.parse(iso), this.zone) : ''
    },
    day(date: string, style: DayStyle = 'short'): string {
      return sayDay(date, this.locale, style)
    },
    /** The day of an instant. */
    dayOf(iso: string): string {
      return sayDay(localDate(Date.parse(iso), this.zone), this.locale)
    },
    dayTime(iso: string): string {
      return `${this.dayOf(iso)} ${this.time(iso)}`
    },
    /** The time alone where it is today's, else with its day. */
    timeOrDay(iso: string | null): string {
      if (!iso) return ''
      return localDate(Date.parse(iso), this.zone) === this.today
        ? this.time(iso)
        : this.dayTime(iso)
    },
  },
})
