import type { StringPart } from '../../plant/part'

const sisterGroups = new WeakMap<StringPart['data'], string>()

/** Strings of one array and one kind of module are sisters. */
export function sisterGroupOf(part: StringPart): string {
  let group = sisterGroups.get(part.data)
  if (group === undefined) {
    const { data } = part.data.moduleType
    group = `${part.data.arrayId}|${data.voc_V}|${data.isc_A}|${data.beta_pctPerK}|${data.alpha_pctPerK}`
    sisterGroups.set(part.data, group)
  }
  return group
}
