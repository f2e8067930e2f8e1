/** The parts of the chart library that are used here, and no others: it comes with the first chart that is shown. */
import { BarChart, CustomChart, LineChart, ScatterChart } from 'echarts/charts'
import {
  AriaComponent,
  AxisPointerComponent,
  DataZoomInsideComponent,
  GridComponent,
  LegendComponent,
  TooltipComponent,
} from 'echarts/components'
import { init, use } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'

use([
  BarChart,
  CustomChart,
  LineChart,
  ScatterChart,
  AriaComponent,
  AxisPointerComponent,
  DataZoomInsideComponent,
  GridComponent,
  LegendComponent,
  TooltipComponent,
  SVGRenderer,
])

export { init }
export type { EChartsCoreOption as ChartOption, EChartsType } from 'echarts/core'
