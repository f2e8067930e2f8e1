/**
 * What one test of the trade says of itself. Adding a test is one file in its chapter's folder, its arithmetic in its
 * chapter, its words, and its hook-up drawing: bench, run sheet, schedule, certificate and exports pick it up from here.
 */
import type { CurveToExplain } from '../diagnosis/curveCauses'
import type { StateId } from '../evaluation/states'
import type { Sheet } from '../plant/kinds/descriptor'
import type { Part, PartData, PartKind } from '../plant/part'
import type { PlantIndex } from '../plant/plantIndex'
import type { Station } from '../plant/stations'
import type { ModelCache } from '../pv/stringModel'
import type { Unit } from '../quantity/unit'
import type { Body, ReadingVersion } from '../record/entry'
import type { Ability, Instrument, Measurable } from '../record/instrument'
import type { Limit, LimitId, Regime } from '../regime/regime'
import type { SourceId } from '../regime/sources'
import type { Cause } from '../verdict/cause'
import type { Judgement, RuleData } from '../verdict/judgement'
import type { Figures, Finding, Verdict } from '../verdict/verdict'
import type { AsRead, Beside, TellsLight } from './beside'
import type { Panel } from './panel'
import type { Picture } from './picture'
import type { ReadWithoutLight } from './reading'
import type { Asking, NumberSlot, Slot } from './slot'

/** What a test is judged from: slots, conditions, and the instrument they were read with. */
export type Reading = Pick<Body<'reading'>, 'slots' | 'conditions' | 'instrument' | 'how'> &
  Partial<Pick<Body<'reading'>, 'air'>> & {
    v?: ReadingVersion
    /** What stands beside it where it was taken without a light meter. */
    beside?: Beside | null
  }
export const NOTHING_READ: Reading = { slots: {}, conditions: null, instrument: null, how: 'typed' }

export type PartIn<Kind extends PartKind> = Part<Extract<PartData, { kind: Kind }>>

/** Everything that a judgement may take in. What it hands out can be recorded: that is what the verdict rests on. */
export type StepContext<Kind extends PartKind = PartKind> = {
  part: PartIn<Kind>
  plant: PlantIndex
  instruments: readonly Instrument[]
  regime: Regime
  models: ModelCache
  reading: Reading
  /** What the step asks. */
  slots: readonly Slot[]
  /** A figure of the regime. @throws Lacking where the regime has none of that name. */
  limit(id: LimitId): Limit
  /** The reading of another step that counts now, null where there is none: Ze for a circuit's loop. */
  counted(step: string, partId: string): Body<'reading'> | null
}

/** The context of a step on whatever part. */
export type AnyContext = Omit<StepContext, 'part'> & { part: Part }

/** A residual current that an instrument must be able to make. */
export type KitReach = { measures: Measurable; upTo_mA: number }
/** What an instrument of the kit must measure, or be able to do. */
export type KitNeed = Measurable | Ability | KitReach

/** Which parts a gate or a state speaks of, seen from the part of the step. */
export type On =
  | 'part'
  | 'site'
  | 'array'
  | 'inverter'
  | 'strings'
  | 'strings-array'
  | 'surge-protection'
  | 'supply'
  | 'electrodes'
  | 'electrodes-by-spikes'
  | 'electrodes-by-loop'
  | 'circuits'
  | 'rings'
  | 'inverter-circuit'
  | 'supply-of-inverter'

type Gate = {
  id: string
  /** A hard gate cannot be passed with a reason; a subject that is missing or that there are two of shuts it. */
  hard: boolean
  on?: On
  /** Where it does not apply there is no gate. */
  only?(part: Part, plant: PlantIndex): boolean
}
/** Waits for another step: to be done (`done`), or merely not to be outside (`not-outside`). */
export type StepGate = Gate & {
  waitsFor: string
  until: 'done' | 'not-outside'
  /** Of a board or device it asks nothing of a part that is in this state, beside the others: it stays off. */
  spares?: StateId
}
/** Asks how a place stands: proved dead, earthing conductor on. */
export type StateGate = Gate & { state: StateId }
export type GateRule = StepGate | StateGate

/** What a reading of this step does to a place: it begins a state or ends it. */
export type StateEffect = {
  state: StateId
  on: On
  /** Begins where every decisive line is as it should be and the verdict is within or close; ends whenever it is done. */
  does: 'begin' | 'end'
  /** Only for a reading of this kind: Ze with the conductor taken off. */
  when?(reading: Reading): boolean
}

export type Hookup = {
  /** Which drawing; the drawing itself stands in the interface under this name. */
  drawing: string
  /** How the leads lie, where two drawings show the same leads: then nobody moves them from one to the other. */
  wiring?: string
  leads: readonly { balloon: number; code: string }[]
}
/**
 * What differs by a choice, or by where the part lies in its plant. `joins`: plus and minus are joined through a switch,
 * which has to be made for it.
 */
export type Variant = ({ slot: string; is: string } | { where(part: Part, plant: PlantIndex): boolean }) & {
  joins?: true
  hookup?: Hookup
  cautions?: readonly Caution[]
}
export type Caution = { id: string; hard: boolean }

/** A reading that was kept, and whether its say was ended since. */
export type KeptReading = { reading: Reading; ended: boolean }

export type WorkedExample = {
  source: string
  part: Extract<PartData, { kind: PartKind }>
  /** Further parts that the judgement takes in; they are given the part's own id. */
  others?: (partId: string) => readonly PartData[]
  /** A part that the example's own names by its id. */
  named?: { id: string; data: PartData }
  /** Null where the step is computed from the plant alone. */
  reading: Pick<Body<'reading'>, 'slots' | 'conditions'> | null
  verdict: Verdict
}

/** Letter of the chapter, then its place in it. */
export type Order = `${'A' | 'B' | 'C' | 'D' | 'E' | 'F' | 'G'}${number}`

type StepBase<Kind extends PartKind> = {
  id: string
  /** Of a test of the whole site: the sheets of the record that tell it, all of them where nothing is said. */
  sheets?: readonly Sheet[]
  order: Order
  appliesTo: Kind
  /** Asked only of such a plant: nobody looks at modules where there are none. */
  where?: (plant: PlantIndex) => boolean
  /** Its words and drawings come to a screen only where it is asked. */
  comesWith?: 'curve' | 'fault'
  /** Asked only of such parts of its kind; of all where it is not given. */
  of?(part: PartIn<Kind>, plant: PlantIndex, regime: Regime): boolean
  /** Outside it somebody may be hurt: in a periodic inspection that is never only to be improved. */
  protects?: true
  station: Station
  tag: 'live' | 'live-in-daylight' | 'dead'
  gates: readonly GateRule[]
  cautions: readonly Caution[]
  hookup: Hookup
  minutes: number
  sources: readonly SourceId[]
  /** The one judgement: verdict, sentence, limits and working at once. */
  judge(context: StepContext<Kind>): Judgement
  causes?(context: StepContext<Kind>, judgement: Judgement): Cause[]
  /** A curve whose causes take a while to find: asked for where somebody looks, away from the screen. */
  explains?(context: StepContext<Kind>, judgement: Judgement): CurveToExplain | null
  example: WorkedExample
}

/** A test whose verdict follows from the plant, and from what other tests read: nobody reads anything for it. */
export type ComputedStep<Kind extends PartKind = PartKind> = StepBase<Kind> & { kind: 'computed' }

/** A figure worked out from several slots. */
export type Standing = { value: number; unit: Unit; decimals: number }

/** What the tests of the same part come to; that of the step itself by what is answered so far. */
export type VerdictOf = (step: string) => Verdict

/** A test that somebody reads. */
export type ReadStep<Kind extends PartKind = PartKind> = StepBase<Kind> &
  Asking & {
    kind: 'read'
    /** Light and warmth of the same moment belong to it: always, or for such a part. */
    needsConditions?: true | ((part: Pick<PartIn<Kind>, 'data'>) => boolean)
    /** Its judgement takes in readings of other steps: it is judged anew with them. Only then may it ask for them. */
    readsOthers?: boolean
    /** Which of the readings of the visit that counts has the say. */
    counts: 'latest' | 'worst'
    /** Asked only while one of these tests of the same part is close or outside: a hunt. It never holds a record up. */
    onNeedOf?: readonly string[]
    /** Of what stood before and is only looked at again it is asked where somebody wants it. */
    ofNewWork?: true
    /** Why it is usually left out, as codes: said by one press. */
    leftOutAs?: readonly string[]
    /** What stays open until it is done, for somebody would be hurt by what was merely left out: lines of it may be. */
    neverLeftOut?: true
    /** Its readings begin and end states of places. */
    effects?: readonly StateEffect[]
    /** What it cannot be done without: said before anybody drives out. */
    kit?(part: PartIn<Kind>, regime: Regime): readonly KitNeed[]
    /** A reading that is done nulls its lead set for its visit. */
    nulls?: boolean
    /** A light meter is set up in the part's plane by it: until it is set up in another. */
    placesMeter?: true
    /** The leads must have been nulled in this visit: else the reading says so. */
    nulled?: boolean
    /** Hook-up and cautions that differ by a choice: another method, other leads. */
    variants?: readonly Variant[]
    /** Which of several figures of one quantity stands for the reading in lists, or that none does; the lowest where nothing is said. */
    stands?: 'highest' | 'none'
    /** The figure that stands for the reading where it is none of its slots: a mean, a place on a curve. */
    standing?(reading: Pick<Reading, 'slots'>): Standing | null
    /** The value that the reading should show, null where there is nothing to expect or no usable conditions. */
    expect?(context: StepContext<Kind>): { value: number; uncertainty: number } | null
    /** The scale of a figure before anything is read: its limits and what is expected. Null where nothing is known of it. */
    scaleBefore?(context: StepContext<Kind>, slot: NumberSlot): RuleData | null
    /** What is wrong with the set-up, whatever is read: the wrong method for the place. Null where nothing is. */
    trap?(context: StepContext<Kind>): Finding | null
    /** What looks like a mistake of typing: asked about, and kept once it is confirmed. */
    doubt?(reading: Pick<Reading, 'slots'>): { code: string; slot: string; figures: Figures } | null
    /** Questions that are answered together; those of the others are shown by its panel. Null for questions of no group. */
    groupOf?(slot: Slot): string | null
    /** People are led through it one thing at a time, on a screen of its own, by name. */
    guide?: 'trips'
    /** A picture over its questions that fills as they are answered; it may look at readings and verdicts of whatever step. */
    panel?(context: StepContext<Kind>, verdictOf: VerdictOf): Panel
    /** Pictures of its own beside the working, as data. */
    pictures?(context: StepContext<Kind>): readonly Picture[]
    /** One picture of all its readings together, and of what is answered so far. Null where there is nothing to draw. */
    pictureOfAll?(context: StepContext<Kind>, kept: readonly KeptReading[]): Picture | null
    /** A planning sheet of its own, by name; the sheet itself stands in the interface. */
    planner?: 'rods'
    /** Readings of one part over months are held side by side: what must be alike for it, and what is said beside each. */
    trend?: {
      same: readonly string[]
      note: string | null
      /** A number that is counted beside each: rods driven by then. */
      count?: string
      /** What must be alike besides where something spoilt a reading: a bearing, where metal lies along it. */
      besides?: { slots: readonly string[]; where(judgement: Judgement): boolean }
    }
    /** Other parts that one reading speaks for as well: it is kept on each of them. */
    sharedWith?(context: StepContext<Kind>): readonly Part[]
    /** What of a reading is held against alike parts where nobody read the light; null where it is judged by its light. */
    asRead?(part: PartIn<Kind>, reading: ReadWithoutLight): AsRead | null
    /** What an instrument must be set to, by slot: marked among the answers, and filled in by nobody but whoever set it. */
    asksFor?(context: StepContext<Kind>): Readonly<Record<string, string>>
    /** What looks wrong to the eye and is not, each with its figure; asked only where nothing is wrong. */
    sound?(context: StepContext<Kind>, judgement: Judgement): readonly Finding[]
    /** The current by which such a reading tells the light of its plane. */
    tellsLight?(part: PartIn<Kind>, reading: ReadWithoutLight): TellsLight | null
    /** Which readings of other parts may be compared with this one; null where sisters are not compared. */
    sisterGroup?(part: PartIn<Kind>): string | null
    /** Held side by side with alike parts: in per cent of their middle, or on the test's own scale. */
    compared?: 'percent' | 'own-scale'
    /** How far alike parts may lie apart; the regime's figure for strings where nothing else is named. */
    sisterLimit?: LimitId
    /** Steps on the same part which putting it right may have changed: they are asked for again. None by itself. */
    mendingTouches?: readonly string[]
  }

export type Step<Kind extends PartKind = PartKind> = ReadStep<Kind> | ComputedStep<Kind>

/** A step whose part kind is only known when it runs. */
// biome-ignore lint/suspicious/noExplicitAny: the registry holds steps of every part kind; `appliesTo` is checked before use
export type AnyStep = Step<any>
// biome-ignore lint/suspicious/noExplicitAny: as above
export type AnyReadStep = ReadStep<any>

export const isRead = (step: AnyStep): step is AnyReadStep => step.kind === 'read'

/** Whether light and warmth belong to a reading of the step on this part. */
export const wantsConditions = (step: AnyStep, part: Pick<Part, 'data'>): boolean =>
  isRead(step) &&
  (typeof step.needsConditions === 'function' ? step.needsConditions(part) : step.needsConditions === true)

/** Whether a step is asked of a part of its kind in this plant, under a regime. */
export const isAskedOf = (step: AnyStep, part: Part, plant: PlantIndex, regime: Regime): boolean =>
  (step.where?.(plant) ?? true) && (step.of?.(part, plant, regime) ?? true)

/** The tests for whose sake a step is asked; none where it is asked by itself. */
export const neededFor = (step: AnyStep): readonly string[] => (isRead(step) ? (step.onNeedOf ?? NONE) : NONE)
const NONE: readonly string[] = []

/** What a step asks; nothing where it is computed. */
export const slotsOf = (step: AnyStep): readonly Slot[] => (isRead(step) ? step.slots : [])

/** The slot whose figure stands for the reading in lists: the first number, else the first choice. */
export function mainSlot(step: AnyStep): Slot | null {
  const slots = slotsOf(step)
  const numbers = slots.filter((slot) => slot.kind === 'number')
  return numbers.find((slot) => !slot.optional) ?? numbers[0] ?? slots[0] ?? null
}

export const mayBeLeftOut = (step: AnyStep): boolean => !isRead(step) || !step.neverLeftOut

/** A list of checks and nothing else. */
export const isChecklist = (step: AnyStep): boolean =>
  slotsOf(step).length > 0 && slotsOf(step).every((slot) => slot.kind === 'check')

/** How it is hooked up and what to mind, by the choices made so far. */
export function shownFor(
  step: AnyStep,
  choices: Readonly<Record<string, string | undefined>>,
  { part, plant }: { part: Part; plant: PlantIndex },
) {
  const isHere = (one: Variant): boolean => ('slot' in one ? choices[one.slot] === one.is : one.where(part, plant))
  const variant = isRead(step) ? step.variants?.find(isHere) : undefined
  return { hookup: variant?.hookup ?? step.hookup, cautions: variant?.cautions ?? step.cautions }
}
