/** Models of charge point of invented makes; figures are plausible for their kind and belong to nobody. */
import type { ChargePointModel } from '@/core/plant/part'
import { demoId } from './instruments'

/** A post with a socket, its own detector and its own lost-PEN device. */
export const sorrelPost: ChargePointModel = {
  id: demoId(0x251),
  make: 'Sorrel',
  name: 'Post 32',
  data: {
    phases: 1,
    rated_A: 32,
    outlet: 'socket',
    cable_A: null,
    rcdType: 'A',
    rcdRated_mA: 30,
    dcDetector: true,
    penDevice: true,
    faultSign: true,
    reset: ['Plug out', 'Lift the grey flap', 'Lever down, then up'],
    ready_s: 20,
    shows: { ready: 'Green', waiting: 'Blue', charging: 'Blue, breathing', fault: 'Red' },
  },
}

/** A small box with a fixed cable: it drops out and shows nothing of a fault. */
export const wickBox: ChargePointModel = {
  id: demoId(0x252),
  make: 'Wickside',
  name: 'Box 7',
  data: {
    phases: 1,
    rated_A: 32,
    outlet: 'tethered',
    cable_A: 32,
    rcdType: null,
    rcdRated_mA: null,
    dcDetector: true,
    penDevice: false,
    faultSign: false,
    reset: ['Plug back in its holster', 'Breaker off, count to five, breaker on'],
    ready_s: 45,
    shows: { ready: 'Two white bars', waiting: 'One white bar', charging: 'Bars running', fault: '' },
  },
}

export const demoChargePoints = [sorrelPost, wickBox]
