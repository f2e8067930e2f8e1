import { exampleModule } from '../src/core/steps/worked'
import { fitDeSoto } from '../src/core/pv/deSoto'
import { asOneDiode } from '../src/core/curve/reference'
import { currentAt, openCircuitVoltage, maximumPowerPoint } from '../src/core/pv/singleDiode'
const f = fitDeSoto(exampleModule as any) as any
const d = asOneDiode(f.parameters, 11)
const voc = openCircuitVoltage(d)
console.log(voc, maximumPowerPoint(d), f.parameters)
const vs = [0, 40, 100, 180, 240, 280, 300, 315, 330, 340, 350, 360, 370, 380, 390, 400, 406, 411]
console.log(JSON.stringify(vs), JSON.stringify(vs.map(v => Number(currentAt(d, v).toFixed(3)))))
