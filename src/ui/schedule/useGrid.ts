'use client'
import { type ClipboardEvent, type KeyboardEvent, useState } from 'react'
import type { Slot } from '@/core/steps/slot'
import { deviceWords } from '@/words/circuit'
import { say } from '@/words/say'
import { cellOfFigures, writeBlock } from './block'
import { shownAt, standsIn } from './cell'
import { cellAt, type Column, type Row, type Under } from './model'
import { type Asks, firstInRow, firstPlace, type Move, moved, type Place } from './moves'
import { columnName, type Schedule } from './useSchedule'

type Asked = {
  rows: readonly Row[]
  columns: readonly Column[]
  under: Under
  schedule: Schedule
  mayWrite: boolean
  /** The part that one came from. */
  partId: string | null
}

/** Where somebody is in the grid, and what keys, copying and pasting do there. */
export function useGrid({ rows, columns, under, schedule, mayWrite, partId }: Asked) {
  const cell = (place: { row: number; column: number }) =>
    cellAt(rows[place.row]!, columns[place.column]!, under, schedule.setUp)
  const asks: Asks = {
    rows: rows.length,
    columns: columns.length,
    slotsAt(row, column) {
      const own = cell({ row, column })
      return own.is === 'asked' ? own.slots.length : 0
    },
  }
  const [place, setPlace] = useState<Place | null>(() => {
    const row = rowOf(rows, partId)
    return row < 0 ? null : firstInRow(asks, row)
  })
  const isThere =
    place && place.row < asks.rows && place.column < asks.columns && asks.slotsAt(place.row, place.column) > 0
  const at = isThere ? place : null
  const own = at && cell(at)
  const here =
    at && own?.is === 'asked'
      ? { one: own.one, slot: own.slots[at.slot] ?? own.slots[0]!, isOneOf: own.slots.length > 1 }
      : null

  /** Leaves a cell: its test is kept where all its figures are there and the next cell is another test's. */
  const leave = (to: Place | null): void => {
    const next = to && cell(to)
    if (here && !(next?.is === 'asked' && next.one === here.one)) void schedule.keep(here.one)
    schedule.setSaid(null)
    setPlace(to)
  }

  const toRow = (part: string): void => {
    const row = rowOf(rows, part)
    const to = row < 0 ? null : firstInRow(asks, row)
    if (to) leave(to)
  }

  /** To another figure of the same test, in whichever cell of the row it stands. */
  const toSlot = (slot: Slot): void => {
    if (!at || !here) return
    for (let column = 0; column < columns.length; column++) {
      const own = cell({ row: at.row, column })
      const k = own.is === 'asked' && own.one === here.one ? own.slots.indexOf(slot) : -1
      if (k >= 0) return setPlace({ row: at.row, column, slot: k })
    }
  }

  /** The simulated tester reads the figure, and leads on unless what it showed is to be looked at first. */
  const press = async (): Promise<void> => {
    if (!here || !at || here.one.shut?.hard) return
    if (!(await schedule.press(here.one, here.slot)) || !schedule.mayGoOn(here.one)) return
    const to = moved(asks, at, 'on')
    if (to) leave(to)
    else void schedule.keep(here.one)
  }

  const onKey = (event: KeyboardEvent, isReady: boolean): void => {
    if (!at || !here) return
    const stop = (): void => event.preventDefault()
    if (event.altKey && event.key.toLowerCase() === 'p') {
      stop()
      return void (mayWrite && isReady && press())
    }
    if (event.key === 'Escape') {
      stop()
      return schedule.drafts[here.one.key] ? schedule.write(here.one, here.slot, '') : leave(null)
    }
    if (event.altKey || event.ctrlKey || event.metaKey || isNote(event.target)) return
    const move = moveOf(event)
    if (!move) {
      if (event.key.length !== 1 || (mayWrite && isReady)) return
      return schedule.setSaid(say(mayWrite ? 'schedule.mind-first' : 'schedule.read-only'))
    }
    const to = moved(asks, at, move)
    // Tab leads out of the grid where there is nothing further.
    if (!to && (move === 'next' || move === 'back')) return leave(null)
    stop()
    if (to) leave(to)
    else void schedule.keep(here.one)
  }

  const onPaste = async (event: ClipboardEvent, isReady: boolean): Promise<void> => {
    const text = event.clipboardData.getData('text/plain')
    if (!at || !/[\t\n]/.test(text)) return
    event.preventDefault()
    if (!mayWrite) return schedule.setSaid(say('schedule.read-only'))
    // What waits behind a gate says so itself.
    if (!isReady && !here?.one.shut?.hard) return schedule.setSaid(say('schedule.mind-first'))
    const asked = await schedule.paste(text, columns, at)
    if (asked) setPlace({ ...asked, slot: asked.slot })
  }

  /** The whole board with its headings, as a spreadsheet takes it. */
  const copy = async (): Promise<void> => {
    const head = [say('schedule.circuit'), say('schedule.feeds'), say('schedule.device'), ...columns.map(columnName)]
    const lines = rows.map(({ part: { data } }, row) => [
      data.tag,
      'feeds' in data ? data.feeds : '',
      data.kind === 'circuit' ? deviceWords(data) : '',
      ...columns.map((_, column) => {
        const own = cell({ row, column })
        if (own.is !== 'asked' && own.is !== 'kept') return ''
        const stood = schedule.stoodAt(own.one)
        const { isApart } = standsIn(own.one, own, stood)
        const slots = isApart && 'apart' in own ? (own.apart ?? []) : own.slots
        return cellOfFigures(slots.map((slot) => shownAt(own.one, slot, stood).text))
      }),
    ])
    const copied = await navigator.clipboard.writeText(writeBlock([head, ...lines])).then(
      () => true,
      () => false,
    )
    schedule.setSaid(copied ? say('schedule.copied', { count: rows.length }) : say('schedule.not-copied'))
  }

  return { at, here, entry: firstPlace(asks), leave, toRow, toSlot, press, onKey, onPaste, copy }
}

const rowOf = (rows: readonly Row[], partId: string | null): number =>
  rows.findIndex(({ part, byStep }) => part.id === partId || [...byStep.values()].some((one) => one.part.id === partId))

const isNote = (target: EventTarget): boolean =>
  target instanceof HTMLElement && target.dataset.testid?.startsWith('note-') === true

/** Which way a key leads, null where it is not a key of the grid. */
function moveOf({ key, shiftKey, target }: KeyboardEvent): Move | null {
  if (key === 'Enter') return shiftKey ? 'before' : 'on'
  if (key === 'Tab') return shiftKey ? 'back' : 'next'
  if (key === 'ArrowUp') return 'up'
  if (key === 'ArrowDown') return 'down'
  const input = target instanceof HTMLInputElement ? target : null
  const whole =
    !input || input.value === '' || (input.selectionStart === 0 && input.selectionEnd === input.value.length)
  if (key === 'ArrowLeft' && (whole || (input.selectionStart === 0 && input.selectionEnd === 0))) return 'left'
  if (key === 'ArrowRight' && (whole || input.selectionStart === input.value.length)) return 'right'
  return null
}
