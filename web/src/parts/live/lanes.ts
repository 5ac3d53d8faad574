import type { Schemas } from '@/api/client'
import { fixed } from '@/ui/formats'
import { pathOf, type Buffers } from './buffers'

export type Channel = Schemas['ChannelOut']
/** One channel as it is drawn: its line, its ends and its newest value in shown units. */
export interface Lane extends Channel {
  points: string
  least: string
  most: string
  now: string
}
export interface Frame {
  newest: number
  span: number
  width: number
  height: number
}

/** What this view is about comes first. */
function rank(quantity: string, first: string[]): number {
  const at = first.findIndex((name) => quantity.startsWith(name))
  return at < 0 ? first.length : at
}

/** A channel that its instrument no longer sends (a capacitor, once the motor runs) does not take a lane. */
function sends(quantity: string, buffers: Buffers, { newest, span }: Frame): boolean {
  const buffer = buffers[quantity]
  return !buffer || (buffer.t.at(-1) ?? 0) > newest - span
}

/** The channels as lanes, those that `first` names on top. */
export function lanesOf(
  channels: Channel[],
  buffers: Buffers,
  first: string[],
  frame: Frame,
): Lane[] {
  return channels
    .filter((channel) => sends(channel.quantity, buffers, frame))
    .sort((a, b) => rank(a.quantity, first) - rank(b.quantity, first))
    .map((channel) => laneOf(channel, buffers[channel.quantity] ?? { t: [], v: [] }, frame))
}

function laneOf(channel: Channel, buffer: Buffers[string], frame: Frame): Lane {
  const drawn = pathOf(buffer, frame.newest, frame.span, frame.width, frame.height)
  const shown = (si: number) => fixed(si * channel.scale + channel.offset, channel.decimals)
  const last = buffer.v.at(-1)
  return {
    ...channel,
    points: drawn.points,
    least: shown(drawn.low),
    most: shown(drawn.high),
    now: last === undefined ? '–' : shown(last),
  }
}
